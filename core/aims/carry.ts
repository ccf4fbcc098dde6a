// Carrying a grade over: what is taken along, and the aims by which the corrections are solved anew on another shot's
// own pixels.
import { carriedShow, sharedSteps, stationOf, type GradeDocument, type StationId, type Step } from '../grade'
import type { Area, Finding, Pointed, ReadingId } from '../readings'
import type { Aim } from './aim'

/** The stations that can be carried; how a shot is read stays its own. */
export const carriedStations = [
  'level',
  'shape',
  'hue',
  'regions',
  'look',
  'show',
] as const satisfies readonly StationId[]
export type CarriedStation = (typeof carriedStations)[number]

/** `onto` with the chosen stations of `from`. Steps on the display side belong to their stations. */
export function carryGrade(from: GradeDocument, onto: GradeDocument, chosen: readonly CarriedStation[]): GradeDocument {
  // A shared look comes to each shot from its own scene: it is neither taken along nor replaced.
  const taken = new Set<StationId>(chosen)
  const theirs = new Set(sharedSteps(from))
  const ours = new Set(sharedSteps(onto))
  const regions = taken.has('regions') ? from.regions : onto.regions
  return {
    ...onto,
    ...(taken.has('show') ? { show: carriedShow(from, onto.read), working: from.working } : {}),
    regions,
    // Keyframes are places of one clip: they stay behind, and those of controls that are replaced here go.
    animation: onto.animation.filter((m) =>
      onto.steps.some((s) => s.id === m.stepId && (!taken.has(stationOf(s)) || ours.has(s))),
    ),
    steps: [
      ...from.steps.filter((s) => taken.has(stationOf(s)) && !theirs.has(s)),
      ...onto.steps.filter((s) => !taken.has(stationOf(s)) || ours.has(s)),
    ],
  }
}

/**
 * The carried grade with the white balance that the shot had before, if it had any. Where its own pixels do not say
 * what is grey in it, what a person set or accepted there is worth more than the balance of another shot's light.
 */
export function withOwnBalance(carried: GradeDocument, own: GradeDocument): GradeDocument {
  const balanceOf = ({ steps }: GradeDocument): Step | undefined =>
    steps.find((s) => s.kind === 'white-balance' && s.regionId === undefined)
  const [theirs, ours] = [balanceOf(carried), balanceOf(own)]
  if (!theirs || !ours || Object.values(ours.params).every((v) => v === 0)) return carried
  const { params, strength } = ours
  return { ...carried, steps: carried.steps.map((s) => (s === theirs ? { ...s, params, strength } : s)) }
}

const shares = { black: 0.001, middle: 0.5, white: 0.999 } as const
const names = { black: 'Black', middle: 'Middle', white: 'White' } as const
const leastConfidence = 1 / 3

/**
 * The aims under which the corrections are solved anew: levels as they measure on the shot that the grade comes from,
 * and this shot's own card, greys and skin. `there` and `here` are the findings of both, each through the carried
 * grade.
 */
export function carriedAims(there: readonly Finding[], here: readonly Finding[], pointed: Pointed): readonly Aim[] {
  const of = (findings: readonly Finding[], id: ReadingId): Finding | undefined => findings.find((f) => f.id === id)
  const card = pointed.card && of(here, 'cardExposure')
  const greys = of(here, 'neutrals')
  const level = (id: 'black' | 'middle' | 'white'): readonly Aim[] => {
    const value = of(there, id)?.value
    return value === undefined
      ? []
      : [{ id, name: names[id], rank: 2, want: { kind: 'level', share: shares[id], value } }]
  }
  // A scene without a white or a black of its own is not stretched to another's.
  const ends = (['black', 'white'] as const).flatMap((id) =>
    of(here, id === 'white' ? 'noWhite' : 'noBlack')?.alarm && !of(there, id === 'white' ? 'noWhite' : 'noBlack')?.alarm
      ? []
      : level(id),
  )
  const neutralAim = (): readonly Aim[] => {
    const neutral = (name: string, areas: readonly Area[]): readonly Aim[] => [
      { id: 'white-balance', name, rank: 1, want: { kind: 'neutral', areas } },
    ]
    if (pointed.card) return neutral('Card', [pointed.card])
    if (!greys?.places?.length || greys.confidence < leastConfidence) return []
    return neutral('Greys of the picture', greys.places)
  }
  return [
    ...(card && pointed.card
      ? [
          {
            id: 'card',
            name: 'Card',
            rank: 1,
            want: { kind: 'light', areas: [pointed.card], stops: of(there, 'cardExposure')?.value ?? 0 },
          } as const,
        ]
      : level('middle')),
    ...ends,
    ...neutralAim(),
    ...pointed.subjects.flatMap(({ name, area, card: own }): readonly Aim[] =>
      own
        ? [
            {
              id: `skin-${name}`,
              name: `Skin, ${name}`,
              rank: 3,
              want: { kind: 'skin', area, hueDegrees: own.hueDegrees },
            },
          ]
        : [],
    ),
  ]
}

/** What is told of a reading that lies outside after carrying; what is lost comes first. */
export const lossFirst = (
  a: { readonly id: ReadingId; readonly weight: number },
  b: { readonly id: ReadingId; readonly weight: number },
): number =>
  Number(b.id === 'clipped' || b.id === 'crushed') - Number(a.id === 'clipped' || a.id === 'crushed') ||
  b.weight - a.weight
