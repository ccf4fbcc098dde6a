// Swatch pairs: places of another picture and of this shot that a person laid side by side ("their leaves, my leaves"),
// of pictures that need have nothing in common. Every pair counts, and none is struck.
import { withControlsAt, type ControlId } from '../aims'
import { leastSquares } from '../aims/least-squares'
import { displayToLab, fromWorkingLog, oklabOf, toOklab, workingGamut, type Vector3 } from '../colour'
import {
  amountAt,
  applyLink,
  buildChain,
  colourCurves,
  sceneLinks,
  setParameter,
  setPush,
  tears,
  type ColourCurveId,
  type CurvePoint,
  type GradeDocument,
  type LutFinder,
  type Step,
} from '../grade'
import type { Area } from '../readings'
import type { LightPicture } from './light'
import { lightIn } from './pointed'
import type { Light } from './surfaces'
import { outcomeOf, toward, type Match, type MatchMove } from './toward'

/** A place of another picture, as it is seen there, and the place of this shot that is to look like it. */
export interface Swatch {
  readonly id: number
  /** Display signal, 0..1, on the shot's own display. */
  readonly seen: Vector3
  readonly area: Area
}

export interface SwatchAnswer {
  /** The shot's state on its frame, matched. */
  readonly grade: GradeDocument
  readonly moves: readonly MatchMove[]
  readonly changes: readonly string[]
  readonly surfaces: Match['surfaces']
  readonly sentence: string
  /** Pairs whose place in this shot is clipped or too small to be read, by id. */
  readonly unread: readonly number[]
}

interface Pair extends Swatch {
  readonly there: Light
}

/** CIELAB chroma under which a place tells of the light, and over which it has a hue of its own. */
const nearNeutral = 14
const coloured = 18
/** CIELAB lightness between the darkest and the brightest pair from which on contrast is told. */
const enoughTones = 18
/** What is left of a coloured pair after Level and Shape, in ΔE, from which on its hue is moved by itself. */
const worthTurning = 2
/** Hues nearer than this share one push: two that overlap would undo each other. */
const apartDegrees = 60
/** How far a push may go: beyond, a colour becomes another one. */
const most = { hueByHue: 25, saturationByHue: 0.6, lightnessByHue: 0.6 } as const
const pushShape = { widthDegrees: 55, softness: 0.75 } as const
const pushed = Object.keys(most) as readonly (keyof typeof most)[]

/**
 * This shot moved until its places are shown as those they were paired with: exposure, contrast and saturation, the
 * balance where a near neutral or three hues tell it, then each coloured pair's own hue.
 *
 * @param light of the shot after Read; null is returned where none of its places can be read
 */
export function matchSwatches(
  light: LightPicture,
  grade: GradeDocument,
  swatches: readonly Swatch[],
  lut: LutFinder,
): SwatchAnswer | null {
  const pairs = swatches.flatMap((s): Pair[] => {
    const there = lightIn(light, s.area)
    return there ? [{ ...s, there }] : []
  })
  if (pairs.length === 0) return null
  const unread = swatches.filter((s) => !pairs.some((p) => p.id === s.id)).map((s) => s.id)
  const moving = controlsFor(pairs, grade, lut)
  const level = solvePairs(pairs, grade, lut, moving)
  const turned = turnHues(pairs, level, lut)
  const whole = turned.grade === level.grade ? level : solvePairs(pairs, turned.grade, lut, [])
  const surfaces = whole.surfaces.map((s, i) => ({ ...s, before: level.surfaces[i].before }))
  const middle = (values: readonly number[]): string => [...values].sort((a, b) => a - b)[values.length >> 1].toFixed(1)
  const parts = [
    `ΔE ${middle(surfaces.map((s) => s.before))} → ${middle(surfaces.map((s) => s.after))} over ` +
      `${pairs.length === 1 ? '1 pair' : `${pairs.length} pairs`}.`,
    ...(moving.includes('temperature') ? [] : ['Balance stays: no pair is near neutral.']),
    ...(level.limited.length > 0 ? [`At its limit: ${level.limited.join(', ')}.`] : []),
  ]
  return {
    grade: turned.grade,
    moves: level.moved,
    changes: [...level.moved.map((m) => m.words), ...turned.words],
    surfaces,
    sentence: parts.join(' '),
    unread,
  }
}

/** A document with what swatches came to: its controls on that frame, its colour curves all along. */
export function applySwatches(
  document: GradeDocument,
  { moves, grade }: Pick<SwatchAnswer, 'moves' | 'grade'>,
  frame: number,
): GradeDocument {
  const step = curvesOf(grade)
  const next = withControlsAt(document, moves, frame)
  return step ? pushed.reduce((g, id) => setParameter(g, step.id, id, step.params[id]), next) : next
}

function controlsFor(pairs: readonly Pair[], grade: GradeDocument, lut: LutFinder): readonly ControlId[] {
  const lab = displayToLab(grade.show.displayId)
  const shown = solvePairs(pairs, grade, lut, []).surfaces.map((s) => lab(...s.shown.before))
  const wanted = pairs.map((p) => lab(...p.seen))
  const chroma = ([, a, b]: readonly number[]): number => Math.hypot(a, b)
  const neutral = wanted.some((w, i) => chroma(w) < nearNeutral && chroma(shown[i]) < 2 * nearNeutral)
  const hues = wanted.filter((w) => chroma(w) > coloured).map(([, a, b]) => Math.atan2(b, a))
  const manyHues = hues.filter((h, i) => hues.slice(0, i).every((o) => Math.cos(h - o) < 0.7)).length >= 3
  const tones = wanted.map(([l]) => l)
  const there = shown.map(([l]) => l)
  const spread = (values: readonly number[]): number => Math.max(...values) - Math.min(...values)
  return [
    'exposure',
    ...(neutral || manyHues ? (['temperature', 'tint'] as const) : []),
    ...(Math.min(spread(tones), spread(there)) > enoughTones ? (['contrast'] as const) : []),
    // One strong colour is its own affair: all others would be made stronger with it.
    ...(hues.length > 1 && shown.filter((s) => chroma(s) > coloured / 2).length > 1 ? (['saturation'] as const) : []),
  ]
}

function solvePairs(pairs: readonly Pair[], grade: GradeDocument, lut: LutFinder, moving: readonly ControlId[]): Match {
  const here = pairs.map((p) => p.seen)
  const lights = pairs.map((p) => p.there)
  const shot = toward({ displayId: grade.show.displayId, signal: here }, lights, grade, lut, moving)
  const values = shot.solve(
    shot.start,
    pairs.map(() => 1),
  )
  const surfaces = pairs.map(({ id, area, there }) => ({
    id,
    here: there,
    there,
    hereArea: area,
    thereArea: area,
    places: 4,
  }))
  return outcomeOf(
    shot,
    surfaces,
    here,
    pairs.map(() => true),
    values,
    grade,
  )
}

const curvesOf = (grade: GradeDocument): Step | undefined =>
  grade.steps.find((s) => s.kind === 'colour-curves' && s.regionId === undefined && s.lookId === undefined && s.enabled)

interface Push {
  readonly pair: Pair
  /** The hue that the curves see, in degrees of Oklab. */
  readonly degrees: number
}

/** Each coloured pair that is not there yet turned, strengthened and lightened by itself, within bounds. */
function turnHues(
  pairs: readonly Pair[],
  { grade, surfaces }: Match,
  lut: LutFinder,
): { readonly grade: GradeDocument; readonly words: readonly string[] } {
  const step = curvesOf(grade)
  const nothing = { grade, words: [] }
  if (step?.side !== 'scene') return nothing
  const lab = displayToLab(grade.show.displayId)
  const chroma = (v: Vector3): number => {
    const [, a, b] = lab(...v)
    return Math.hypot(a, b)
  }
  const hueOf = hueBefore(step, grade, lut)
  const pushes = surfaces
    .map((s, i) => ({ ...s, pair: pairs[i] }))
    .filter((s) => s.after > worthTurning && chroma(s.shown.here) > coloured && chroma(s.shown.after) > coloured / 2)
    .sort((a, b) => b.after - a.after)
    .map((s): Push => ({ pair: s.pair, degrees: hueOf(s.pair.there) }))
    .reduce<Push[]>((kept, push) => {
      const free = kept.every((k) => Math.abs(((push.degrees - k.degrees + 540) % 360) - 180) > apartDegrees)
      return free && !bentAt(step, push.degrees) ? [...kept, push] : kept
    }, [])
  if (pushes.length === 0) return nothing
  const pushedGrade = (amounts: readonly number[]): GradeDocument =>
    pushed.reduce((next, id, k) => {
      const points = pushes.reduce(
        (curve, { degrees }, i) =>
          setPush(id, curve, { ...pushShape, degrees, amount: amounts[i * pushed.length + k] }),
        curveOf(step, id),
      )
      return setParameter(next, step.id, id, points)
    }, grade)
  const measure = toward(
    { displayId: grade.show.displayId, signal: pushes.map((p) => p.pair.seen) },
    pushes.map((p) => p.pair.there),
    grade,
    lut,
    [],
  )
  const bounds = pushes.flatMap(() =>
    pushed.map((id) => ({ start: 0, least: -most[id], most: most[id], scale: most[id] })),
  )
  let amounts = leastSquares(bounds, (tried) => measure.off(pushedGrade(tried)).flat())
  // A curve that tears gradients apart is eased until it does not.
  const torn = (tried: readonly number[]): boolean => {
    const curves = curvesOf(pushedGrade(tried))
    return curves !== undefined && pushed.some((id) => tears(id, curveOf(curves, id)).length > 0)
  }
  for (let round = 0; round < 12 && torn(amounts); round++) amounts = amounts.map((amount) => amount * 0.8)
  if (torn(amounts)) return nothing
  const tidied = amounts.map((v) => Math.round(v * 100) / 100)
  const words = pushes.map(({ degrees }, i) => {
    const [hue, saturation, lightness] = tidied.slice(i * pushed.length)
    const signed = (v: number, digits: number): string => `${v < 0 ? '−' : '+'}${Math.abs(v).toFixed(digits)}`
    return (
      `Colours near ${Math.round(degrees)}°: hue ${signed(hue, 0)}°, saturation ×${(1 + saturation).toFixed(2)}, ` +
      `lightness ${signed(lightness, 2)} stops`
    )
  })
  return { grade: pushedGrade(tidied), words }
}

/** A person bent the curves near this hue already: that stands. */
const bentAt = (step: Step, degrees: number): boolean =>
  pushed.some((id) =>
    [-1, -0.5, 0, 0.5, 1].some((part) => {
      const amount = amountAt(id, curveOf(step, id), degrees + part * pushShape.widthDegrees)
      return Math.abs(amount) > 1e-3
    }),
  )

function curveOf(step: Step, id: ColourCurveId): readonly CurvePoint[] {
  const points = step.params[id]
  return Array.isArray(points) ? (points as readonly CurvePoint[]) : colourCurves[id].default
}

/** The hue that a step of colour curves sees, in degrees of Oklab, of light after Read. */
function hueBefore(step: Step, grade: GradeDocument, lut: LutFinder): (light: Light) => number {
  const steps = grade.steps.filter((s) => s.regionId === undefined && s.id !== step.id)
  const chain = buildChain({ ...grade, regions: [], steps }, lut)
  const links = sceneLinks(chain, 'hue').filter((l) => l.station !== 'read')
  const space = oklabOf(workingGamut)
  return (light) => {
    const pixel = Float64Array.from(light)
    for (const link of links) applyLink(link, pixel)
    if (links.at(-1)?.leaves === 'workingLog') for (let c = 0; c < 3; c++) pixel[c] = fromWorkingLog(pixel[c])
    const [, a, b] = toOklab(space, pixel[0], pixel[1], pixel[2])
    return ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360
  }
}
