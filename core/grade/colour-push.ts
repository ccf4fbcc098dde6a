// Pushes on a curve over hue: a hump about one hue, its width and softness, made of anchored points; and the six quick
// colours, which are such humps.
import { colourCurve, colourCurves, type ColourCurveId } from './steps/colour-curves'
import type { CurvePoint } from './document'

/**
 * A hump: `amount` over (or under) neutral at a hue, gone `widthDegrees` away. Softness 1 is a point, 0 a plateau as
 * wide as it goes.
 */
export interface ColourPush {
  readonly degrees: number
  readonly widthDegrees: number
  readonly softness: number
  readonly amount: number
}

export const pushBounds = { widthDegrees: { min: 10, max: 120 }, softness: { min: 0.2, max: 1 } } as const
const least = 0.05

/** What the curve does at a hue, over neutral. */
export function amountAt(id: ColourCurveId, points: readonly CurvePoint[], degrees: number): number {
  return (colourCurve(id, points)?.(((degrees % 360) + 360) % 360) ?? neutralOf(id)) - neutralOf(id)
}
const neutralOf = (id: ColourCurveId): number => colourCurves[id].neutral

/**
 * Puts a hump on a curve that goes round: points inside its reach give way, those outside stay, and its own feet hold
 * what was there.
 */
export function setPush(
  id: ColourCurveId,
  points: readonly CurvePoint[],
  { degrees, widthDegrees, softness, amount }: ColourPush,
): readonly CurvePoint[] {
  const neutral = neutralOf(id)
  const { y } = colourCurves[id]
  const wrap = (d: number): number => Math.round((((d % 360) + 360) % 360) * 1000) / 1000
  const away = (x: number): number => Math.abs(((x - degrees + 540) % 360) - 180)
  const outside = points.filter((p) => away(p.x) > widthDegrees + 1)
  const top = Math.min(y.max, Math.max(y.min, neutral + amount))
  const inner = widthDegrees * (1 - softness)
  // Where nothing else bends the curve, the feet are neutral; else they hold on to what the rest does there.
  const rest = outside.length > 0 ? colourCurve(id, outside) : null
  const foot = (d: number): number => rest?.(wrap(d)) ?? neutral
  const hump: CurvePoint[] = [
    { x: wrap(degrees - widthDegrees), y: foot(degrees - widthDegrees) },
    { x: wrap(degrees + widthDegrees), y: foot(degrees + widthDegrees) },
    ...(inner >= 2
      ? [
          { x: wrap(degrees - inner), y: top },
          { x: wrap(degrees + inner), y: top },
        ]
      : [{ x: wrap(degrees), y: top }]),
  ]
  const all = [...hump, ...outside].sort((a, b) => a.x - b.x)
  return all.filter((p, i) => i === 0 || p.x - all[i - 1].x >= least).slice(0, colourCurves[id].maxPoints)
}

/** The six quick colours by their hue in Oklab: those of BT.709's primaries and their opposites. */
export const quickColours = [
  { id: 'red', name: 'Red', degrees: 29 },
  { id: 'yellow', name: 'Yellow', degrees: 110 },
  { id: 'green', name: 'Green', degrees: 142 },
  { id: 'cyan', name: 'Cyan', degrees: 195 },
  { id: 'blue', name: 'Blue', degrees: 264 },
  { id: 'magenta', name: 'Magenta', degrees: 328 },
] as const
export type QuickColourId = (typeof quickColours)[number]['id']

/** Sets what a curve does at one quick colour and leaves it at the five others. */
export function setQuickColour(
  id: ColourCurveId,
  points: readonly CurvePoint[],
  colour: QuickColourId,
  amount: number,
): readonly CurvePoint[] {
  const { y, neutral } = colourCurves[id]
  const near = (p: CurvePoint, degrees: number): boolean => Math.abs(((p.x - degrees + 540) % 360) - 180) < 6
  // The six hold each other: without the others' points the curve would be moved far and wide.
  const kept = points.filter((p) => !quickColours.some((q) => near(p, q.degrees)) && p.y !== neutral)
  const set = quickColours.map((q): CurvePoint => ({
    x: q.degrees,
    y: Math.min(y.max, Math.max(y.min, q.id === colour ? neutral + amount : neutral + amountAt(id, points, q.degrees))),
  }))
  const all = [...kept, ...set].sort((a, b) => a.x - b.x)
  return all.filter((p, i) => i === 0 || p.x - all[i - 1].x >= least)
}

export interface Tear {
  readonly from: number
  readonly to: number
}
/**
 * How steep a curve may be: per degree of hue, per stop, or per unit of purity. Beyond it, two neighbours in a gradient
 * are torn apart or fall together.
 */
const steepest: Readonly<Record<ColourCurveId, number>> = {
  hueByHue: 0.85,
  saturationByHue: 1 / 18,
  lightnessByHue: 1 / 14,
  saturationByLightness: 1,
  saturationBySaturation: 12,
}

/** Stretches of a curve that would tear a gradient. */
export function tears(id: ColourCurveId, points: readonly CurvePoint[]): readonly Tear[] {
  const curve = colourCurve(id, points)
  const out: { from: number; to: number }[] = []
  if (!curve) return out
  const {
    x: { min, max },
  } = colourCurves[id]
  const steps = 360
  const width = (max - min) / steps
  for (let i = 0; i < steps; i++) {
    const from = min + i * width
    const to = from + width
    const slope = (curve(to) - curve(from)) / width
    // Purity times its gain must rise with purity, or strong colours fall behind weaker ones.
    const folds = id === 'saturationBySaturation' && to * curve(to) < from * curve(from)
    if (Math.abs(slope) <= steepest[id] && !folds) continue
    const last = out.at(-1)
    if (last && Math.abs(last.to - from) < 1e-9) last.to = to
    else out.push({ from, to })
  }
  return out
}
