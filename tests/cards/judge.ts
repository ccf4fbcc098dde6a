// Judges the finding of grey cards: on the demo's own shots, on made cards in photographs, and on photographs without.
import { readFileSync } from 'node:fs'
import { findCards, type FoundCard } from '@core/cards'
import { buildChain, defaultGrade } from '@core/grade'
import { frameOfDecoded, type CodeRange } from '@core/image'
import { decodedPicture } from '@media/decode'
import { decodeFrame } from '@media/single-frames'
import { probe } from '@media/probe'
import { judgingPhotographs } from '../guess/photographs'
import { cardTake, liesWithin } from './takes'

/** The demo's shots that hold a card. */
export const shotsWithCards = [
  'glaze-shelf',
  'window-bench',
  'potter',
  'apprentice',
  'kiln-night',
  'yard-cloud',
  'courtyard',
  'dusk-lantern',
  'market-phone',
  'market-gamma',
] as const

interface ShotTruth {
  readonly encodingId: string
  readonly gamutId: string
  readonly range: CodeRange
  readonly leadFrame: number
  readonly patches: { readonly leadFrame: { readonly greyCard: readonly (readonly [number, number])[] } }
}

/** What is found in a demo shot's lead frame, and how much of it lies on its card. */
export async function demoCard(
  name: string,
): Promise<{ readonly found: readonly FoundCard[]; readonly right: boolean }> {
  const truth = JSON.parse(readFileSync(`demo/footage/${name}.truth.json`, 'utf8')) as ShotTruth
  const path = `demo/footage/${name}.mov`
  const { facts, frameTimes } = await probe(path, name)
  const planes = await decodeFrame(path, facts, frameTimes, truth.leadFrame)
  const source = frameOfDecoded(decodedPicture(planes, facts, truth.range))
  const grade = defaultGrade(truth.encodingId, truth.gamutId, truth.range)
  const found = findCards({ source, chain: buildChain(grade, () => undefined) })
  const corners = truth.patches.leadFrame.greyCard.map(([x, y]) => [x * 960, y * 540] as const)
  // The truth is drawn a little inside the grey's edges.
  return { found, right: found[0] !== undefined && liesWithin(found[0].area, corners, 12) }
}

export interface CardScores {
  readonly found: number
  readonly elsewhere: number
  readonly of: number
  readonly falseOnes: number
  readonly bare: number
  readonly smallest: number
}

export function judgeCards(count: number, bare: number): CardScores {
  const photo = (n: number): string => judgingPhotographs[n % judgingPhotographs.length]!
  let [found, elsewhere, falseOnes, smallest] = [0, 0, 0, 1]
  for (let n = 0; n < count; n++) {
    const take = cardTake(photo(n), n + 1, true)
    const cards = findCards({ source: take.frame, chain: take.chain })
    if (cards[0] && liesWithin(cards[0].area, take.grey ?? [], 2)) found++
    else if (cards.length > 0) elsewhere++
    smallest = Math.min(smallest, take.share)
  }
  for (let n = 0; n < bare; n++) {
    const take = cardTake(photo(n), 5000 + n, false)
    if (findCards({ source: take.frame, chain: take.chain }).length > 0) falseOnes++
  }
  return { found, elsewhere, of: count, falseOnes, bare, smallest }
}
