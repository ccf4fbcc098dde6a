// Balance for me: the aims of a house standard in working order (tone, then balance, then saturation), each with its
// evidence, for what was measured on a frame. Where the evidence is weak it says so and asks for nothing.
import {
  knownCast,
  skinLineDegrees,
  type Area,
  type Finding,
  type HouseStandard,
  type PlacedSubject,
  type Pointed,
  type ReadingId,
  type Target,
} from '../readings'
import { aimWords, printQuantity, type Aim } from './aim'

export interface BalanceLine {
  readonly id: string
  readonly stage: 'tone' | 'balance' | 'saturation'
  /** What is asked for; null where the evidence is too weak for any aim. */
  readonly aim: Aim | null
  readonly words: string
  /** What it rests on, or why nothing is asked for. */
  readonly evidence: string
  /** False where this is the standard's wish rather than something measured in the scene. */
  readonly sure: boolean
}

/**
 * A true white lies this far over grey; a true black this far under it (as the readings "True white" and "True black"
 * hold it).
 */
const leastWhiteStops = 1.6
const leastBlackStops = -3
const leastConfidence = 1 / 3

export function balanceLines(
  findings: readonly Finding[],
  standard: HouseStandard,
  pointed: Pointed,
): readonly BalanceLine[] {
  const find = (id: ReadingId): Finding | undefined => findings.find((f) => f.id === id)
  const card = find('cardExposure')
  const { targets } = standard
  // The scene's ends are judged as they will lie once the card sits at grey.
  const shift = card && pointed.card ? -card.value : 0
  return [
    ...exposureLine(card, pointed.card, targets.cardExposure),
    ...endLine(
      'black',
      0.001,
      find('black'),
      targets.black,
      (find('noBlack')?.value ?? -9) + shift <= leastBlackStops,
      card !== undefined,
    ),
    ...endLine(
      'white',
      0.999,
      find('white'),
      targets.white,
      (find('noWhite')?.value ?? 9) + shift >= leastWhiteStops,
      card !== undefined,
    ),
    ...(card ? [] : endLine('middle', 0.5, find('middle'), targets.middle, true, false)),
    ...whiteLine(findings, pointed.card, targets.cardWhite ?? targets.neutrals),
    ...pointed.subjects.flatMap((s) => skinLine(s, targets.skinHue, knownCast(findings) !== null)),
    ...saturationLine(find('saturation'), targets.saturation),
  ]
}

/** True when every line rests on something measured in the scene. */
export const isSure = (lines: readonly BalanceLine[]): boolean => lines.length > 0 && lines.every((l) => l.sure)

function line(stage: BalanceLine['stage'], aim: Aim, evidence: string, sure = true): BalanceLine {
  return { id: aim.id, stage, aim, words: `${aimWords(aim)}.`, evidence, sure }
}
const nothing = (id: string, stage: BalanceLine['stage'], words: string, evidence: string): BalanceLine => ({
  id,
  stage,
  aim: null,
  words,
  evidence,
  sure: false,
})

function exposureLine(
  card: Finding | undefined,
  area: Area | null,
  target: Target | undefined,
): readonly BalanceLine[] {
  if (!target) return []
  if (!card || !area)
    return [
      nothing(
        'card',
        'tone',
        'No grey card is pointed out.',
        'Brightness follows the standard, not a measured light. Draw a part on a card and say that it is one.',
      ),
    ]
  return [
    line(
      'tone',
      { id: 'card', name: 'Card', rank: 1, want: { kind: 'light', areas: [area], stops: 0 } },
      `The card lies ${printQuantity('stops', card.value)} from middle grey.`,
      card.confidence >= leastConfidence,
    ),
  ]
}

const names = { black: 'Black', middle: 'Middle', white: 'White' } as const

/** A level inside its target is held where it is; outside, it goes to the target's middle. */
function endLine(
  id: 'black' | 'middle' | 'white',
  share: number,
  finding: Finding | undefined,
  target: Target | undefined,
  inScene: boolean,
  light: boolean,
): readonly BalanceLine[] {
  if (!finding || !target) return []
  const name = names[id]
  if (!inScene)
    return [
      {
        ...nothing(id, 'tone', `${name} is left.`, `The scene holds no true ${id}: no stretch is wanted.`),
        sure: true,
      },
    ]
  const inside = finding.value >= target.low && finding.value <= target.high
  const value = inside ? finding.value : (target.low + target.high) / 2
  return [
    line(
      'tone',
      { id, name, rank: 2, want: { kind: 'level', share, value } },
      inside
        ? `${name} lies within the standard and is held there.`
        : `${name} lies at ${printQuantity('level', finding.value)}, the standard wants ` +
            `${printQuantity('level', target.low)} to ${printQuantity('level', target.high)}.`,
      light,
    ),
  ]
}

function whiteLine(
  findings: readonly Finding[],
  card: Area | null,
  target: Target | undefined,
): readonly BalanceLine[] {
  if (!target) return []
  const by = findings.find((f) => f.id === 'cardWhite')
  const greys = findings.find((f) => f.id === 'neutrals')
  if (by && card)
    return [
      line(
        'balance',
        { id: 'white-balance', name: 'Card', rank: 1, want: { kind: 'neutral', areas: [card] } },
        by.detail,
        by.confidence >= leastConfidence,
      ),
    ]
  if (greys?.places?.length && greys.confidence >= leastConfidence)
    return [
      line(
        'balance',
        { id: 'white-balance', name: 'Greys of the picture', rank: 1, want: { kind: 'neutral', areas: greys.places } },
        greys.detail,
      ),
    ]
  return [
    nothing(
      'white-balance',
      'balance',
      'The balance is left.',
      'No grey was found that can be told from a coloured surface. Point out a card or a grey.',
    ),
  ]
}

/** Hue only: how bright a face is to be is for the person to say. */
function skinLine(
  { name, area, card }: PlacedSubject,
  target: Target | undefined,
  lightKnown: boolean,
): readonly BalanceLine[] {
  if (!target || (!card && lightKnown)) return []
  const hueDegrees = card?.hueDegrees ?? skinLineDegrees
  return [
    line(
      'balance',
      { id: `skin-${name}`, name: `Skin, ${name}`, rank: 3, want: { kind: 'skin', area, hueDegrees } },
      card ? `${name}'s own card.` : 'The skin line, as there is no card.',
      card !== null,
    ),
  ]
}

function saturationLine(finding: Finding | undefined, target: Target | undefined): readonly BalanceLine[] {
  if (!finding || !target || (finding.value >= target.low && finding.value <= target.high)) return []
  const value = finding.value < target.low ? target.low : target.high
  return [
    line(
      'saturation',
      { id: 'chroma', name: 'Chroma', rank: 3, want: { kind: 'chroma', value } },
      `The mean lies at ${printQuantity('chroma', finding.value)}.`,
    ),
  ]
}
