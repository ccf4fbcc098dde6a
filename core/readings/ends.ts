// What is lost at the ends of the signal, told apart: flat in the file itself, lamps and glints, and what the grade
// cut, which alone can be helped.
import { middleGrey } from '../colour'
import { sceneLight } from '../grade'
import { signalAt, type Frame } from '../image'
import { printValue, readingKind } from './kinds'
import { patchesOf, type Patch } from './patches'
import type { MeasuredPicture } from './picture'
import type { Finding } from './reading'

/** Which pixels are lost at an end of the signal. */
export type End = 'clipped' | 'crushed'

/** 1 where a pixel has a channel at the top (or, for crushed, all channels at the bottom). */
export function lostAt(
  end: End,
  { shown: { data }, display: { eotf, carriedPeak } }: Pick<MeasuredPicture, 'shown' | 'display'>,
): Uint8Array {
  const out = new Uint8Array(data.length / 3)
  const top = Math.round(eotf.encode(carriedPeak) * 65535)
  for (let p = 0, i = 0; p < out.length; p++, i += 3) {
    const r = data[i]
    const g = data[i + 1]
    const b = data[i + 2]
    if (end === 'clipped' ? r >= top || g >= top || b >= top : (r | g | b) === 0) out[p] = 1
  }
  return out
}

/** Inside its code range, a file's end is flat where so many pixels stand, and far fewer in the codes beside. */
const leastPile = 5e-4
const pileOverNext = 3
/** How far compression scatters a flat end, as a share of the code range. */
const scatter = 0.0075

/**
 * 1 where the file itself is flat at its own end: its brightest codes (any channel) or its darkest (all channels),
 * where they pile up or are the last that its samples can hold.
 */
export function flatInFile(end: End, { data }: Pick<Frame, 'data'>): Uint8Array {
  const marks = new Uint8Array(data.length / 3)
  const most = new Uint16Array(marks.length)
  let ultimate = 0
  for (let p = 0, i = 0; p < most.length; p++, i += 3) {
    const brightest = Math.max(data[i], data[i + 1], data[i + 2])
    // Darkness is turned over, so that both ends are a top.
    most[p] = end === 'clipped' ? brightest : 65535 - brightest
    if (most[p] > ultimate) ultimate = most[p]
  }
  const reach = Math.round(scatter * 65535)
  let pile = 0
  let next = 0
  for (const code of most) {
    if (code >= ultimate - reach) pile++
    else if (code >= ultimate - 2 * reach - 1) next++
  }
  // What stands at the very end of the code range has nowhere to go.
  const atCodeEnd = ultimate >= 65535 - 257
  if (!atCodeEnd && (pile < leastPile * marks.length || pile < pileOverNext * next)) return marks
  for (let p = 0; p < marks.length; p++) if (most[p] >= ultimate - reach) marks[p] = 1
  return marks
}

/** Patches smaller than this share of the picture are lamps and glints, as long as they are few. */
const glintShare = 0.0015
const glintsAtMost = 0.01

/** Shares (0..1) of the picture's pixels. */
export interface LostParts {
  readonly all: number
  readonly inFile: number
  readonly lamps: number
  /** What is left: surfaces that the grade has cut. */
  readonly byGrade: number
  readonly largest: Patch | null
  /** 1 where the grade has cut a surface or a lamp. */
  readonly cut: Uint8Array
}

export function lostParts(end: End, picture: Pick<MeasuredPicture, 'shown' | 'display' | 'source'>): LostParts {
  const { width, height } = picture.shown
  const cut = lostAt(end, picture)
  const count = cut.length
  let all = 0
  for (const mark of cut) all += mark
  if (all === 0) return { all: 0, inFile: 0, lamps: 0, byGrade: 0, largest: null, cut }
  const { largest } = patchesOf(cut, width, height)
  const flat = flatInFile(end, picture.source)
  let inFile = 0
  for (let p = 0; p < count; p++)
    if (cut[p] && flat[p]) {
      cut[p] = 0
      inFile++
    }
  const small = end === 'clipped' ? patchesOf(cut, width, height).pixelsInPatchesUnder(glintShare * count) : 0
  const lamps = small <= glintsAtMost * count ? small : 0
  return {
    all: all / count,
    inFile: inFile / count,
    lamps: lamps / count,
    byGrade: (all - inFile - lamps) / count,
    largest,
    cut,
  }
}

/** The light, in stops over grey, that a shoulder must reach to bring 99 % of the cut pixels back; null without any. */
function shoulderStops({ source, chain }: MeasuredPicture, cut: Uint8Array): number | null {
  const places: number[] = []
  for (let p = 0; p < cut.length; p++) if (cut[p]) places.push(p)
  if (places.length === 0) return null
  const every = Math.ceil(places.length / 5000)
  const codes = signalAt(
    source,
    places.filter((_, i) => i % every === 0),
  )
  const light = sceneLight(chain, 'look', codes)
  const stops = Array.from({ length: light.length / 3 }, (_, p) =>
    Math.log2(Math.max(light[p * 3], light[p * 3 + 1], light[p * 3 + 2], 1e-6) / middleGrey),
  ).sort((a, b) => a - b)
  return stops[Math.floor(0.99 * (stops.length - 1))] ?? null
}

/** More than this of the picture flat in the file itself is said before all else: sky and lamps seldom reach it. */
const graveInFile = 0.03
const stepsOf = (end: End, share: number): number => share / readingKind(end).weighs

export function endFindings(picture: MeasuredPicture): readonly Finding[] {
  return (['clipped', 'crushed'] as const).map((end) => {
    const parts = lostParts(end, picture)
    return {
      id: end,
      value: parts.all,
      counted: parts.byGrade,
      ...(parts.inFile > graveInFile ? { gravity: stepsOf(end, parts.inFile - graveInFile) } : {}),
      confidence: 1,
      detail: parts.all > 0 ? wordsOf(parts, end === 'clipped' ? shoulderStops(picture, parts.cut) : null) : '',
      ...(parts.largest ? { area: parts.largest.area } : {}),
    }
  })
}

/** Parts smaller than this are not worth a sentence. */
const worthSaying = 5e-5

function wordsOf({ inFile, lamps, byGrade, largest }: LostParts, stops: number | null): string {
  const percent = (share: number): string => `${printValue(share, 'pixels')} %`
  const words: string[] = []
  if (byGrade > worthSaying)
    words.push(
      stops === null
        ? `The grade takes ${percent(byGrade)} to black: less of it brings them back.`
        : `The grade cuts ${percent(byGrade)}: a shoulder to ${printValue(stops, 'stops', true)} stops brings it back.`,
    )
  if (lamps > worthSaying) words.push(`${percent(lamps)} are lamps or glints.`)
  if (inFile > worthSaying) words.push(`${percent(inFile)} is flat in the file itself and cannot be brought back.`)
  if (largest) words.push(`The largest patch is ${percent(largest.pixels / largest.of)} of the picture.`)
  return words.join(' ')
}
