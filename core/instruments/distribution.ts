// What stands before a station, for the curves there: how the picture's tones, hues and purities are spread, and what
// one place is.
import { displayById, gamutById, lightOfSignal, middleGrey, oklabOf, toOklab, workingGamut } from '../colour'
import {
  buildChain,
  evaluateDirect,
  hueShare,
  positionsIn,
  sceneLight,
  stationOf,
  stations,
  type Chain,
  type GradeDocument,
  type LutFinder,
  type Positions,
  type Side,
  type StationId,
} from '../grade'
import type { Frame } from '../image'

/** Counts, the largest 1. */
export interface Distribution {
  /** From `lowestStops` on, four to a stop. */
  readonly tones: Float32Array
  /** Five degrees each, weighed by how much of a hue each pixel has. */
  readonly hues: Float32Array
  /** 0…1 in steps of 1/50. */
  readonly purities: Float32Array
}
export interface PlaceColour {
  readonly stops: number
  readonly degrees: number
  readonly purity: number
}

export const lowestStops = -9
const highestStops = 8
const perStop = 4
const hueCells = 72
const purityCells = 50

/** Linear light before a station's steps on one side, in place of codes; the gamut it stands in. */
function lightBefore(
  grade: GradeDocument,
  lut: LutFinder,
  station: StationId,
  side: Side,
  codes: Float64Array,
  place: (chain: Chain) => Positions,
): { readonly gamutId: string } {
  const at = stations.findIndex((s) => s.id === station)
  if (side === 'scene') {
    const chain = buildChain(
      {
        ...grade,
        steps: grade.steps.filter((s) => s.side === 'display' || stations.findIndex((t) => t.id === stationOf(s)) < at),
      },
      lut,
    )
    sceneLight(chain, 'finish', codes, place(chain))
    return { gamutId: workingGamut.id }
  }
  const chain = buildChain(
    {
      ...grade,
      steps: grade.steps.filter((s) => s.side === 'scene' || stations.findIndex((t) => t.id === stationOf(s)) < at),
    },
    lut,
  )
  evaluateDirect(chain, codes, place(chain))
  const display = displayById(grade.show.displayId)
  const light = lightOfSignal(display)
  for (let i = 0; i < codes.length; i += 3) codes.set(light(codes[i], codes[i + 1], codes[i + 2]), i)
  return { gamutId: display.gamutId }
}

function colourOf(space: ReturnType<typeof oklabOf>, light: Float64Array, i: number): PlaceColour | null {
  const [lightness, a, b] = toOklab(space, light[i], light[i + 1], light[i + 2])
  if (!(lightness > 1e-3)) return null
  return {
    stops: 3 * Math.log2(lightness) - Math.log2(middleGrey),
    degrees: ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360,
    purity: Math.hypot(a, b) / lightness,
  }
}

/** Of about `samples` pixels, evenly over the frame. */
export function distributionBefore(
  grade: GradeDocument,
  lut: LutFinder,
  frame: Frame,
  station: StationId,
  side: Side,
  samples = 8000,
): Distribution {
  const stride = Math.max(1, Math.floor((frame.width * frame.height) / samples)) | 1
  const count = Math.ceil((frame.width * frame.height) / stride)
  const scale = (frame.high - frame.low) / 65535
  const light = Float64Array.from(
    { length: count * 3 },
    (_, i) => frame.low + frame.data[Math.floor(i / 3) * stride * 3 + (i % 3)] * scale,
  )
  const space = oklabOf(
    gamutById(lightBefore(grade, lut, station, side, light, (chain) => positionsIn(chain, frame, stride)).gamutId),
  )
  const tones = new Float32Array((highestStops - lowestStops) * perStop)
  const hues = new Float32Array(hueCells)
  const purities = new Float32Array(purityCells)
  for (let i = 0; i < light.length; i += 3) {
    const found = colourOf(space, light, i)
    if (!found) continue
    const { stops, degrees, purity } = found
    const tone = Math.floor((stops - lowestStops) * perStop)
    if (tone >= 0 && tone < tones.length) tones[tone] += 1
    hues[Math.floor((degrees / 360) * hueCells) % hueCells] += hueShare(purity, stops) * Math.min(purity, 0.3)
    purities[Math.min(purityCells - 1, Math.floor(purity * purityCells))] += 1
  }
  return { tones: tall(tones), hues: tall(hues), purities: tall(purities) }
}
function tall(counts: Float32Array): Float32Array {
  const most = counts.reduce((a, b) => Math.max(a, b), 0) || 1
  return counts.map((c) => c / most)
}

/** The mean of the 5 × 5 pixels about a place, in shares of the frame; null where there is no light. */
export function colourBefore(
  grade: GradeDocument,
  lut: LutFinder,
  frame: Frame,
  station: StationId,
  side: Side,
  x: number,
  y: number,
): PlaceColour | null {
  const px = Math.min(frame.width - 1, Math.max(0, Math.floor(x * frame.width)))
  const py = Math.min(frame.height - 1, Math.max(0, Math.floor(y * frame.height)))
  const sums = [0, 0, 0]
  const scale = (frame.high - frame.low) / 65535
  let count = 0
  for (let v = Math.max(0, py - 2); v <= Math.min(frame.height - 1, py + 2); v++)
    for (let u = Math.max(0, px - 2); u <= Math.min(frame.width - 1, px + 2); u++, count++)
      for (let c = 0; c < 3; c++) sums[c] += frame.low + frame.data[(v * frame.width + u) * 3 + c] * scale
  const light = Float64Array.from(sums, (s) => s / count)
  const { gamutId } = lightBefore(grade, lut, station, side, light, (chain) =>
    positionsIn(chain, frame, 1, py * frame.width + px, 1),
  )
  return colourOf(oklabOf(gamutById(gamutId)), light, 0)
}

// A display's power curve is upright at black: steps there are large and dark, and seen by nobody.
const nearBlack = 0.03

/**
 * Tones, in stops before a station, where one code of footage with so many bits becomes more than `codes` of eight bits
 * on the display: they will band.
 */
export function steepTones(
  grade: GradeDocument,
  lut: LutFinder,
  bits: number,
  station: StationId,
  codes = 2.5,
): readonly { readonly from: number; readonly to: number }[] {
  const count = 2 ** Math.min(bits, 12)
  const signal = Float64Array.from({ length: count * 3 }, (_, i) => Math.floor(i / 3) / (count - 1))
  const light = signal.slice()
  const nowhere: Positions = { shares: new Float64Array(count * 2).fill(-10), frameWidth: 1, frameHeight: 1 }
  evaluateDirect(
    buildChain({ ...grade, regions: [], steps: grade.steps.filter((s) => s.regionId === undefined) }, lut),
    signal,
    nowhere,
  )
  lightBefore(
    { ...grade, regions: [], steps: grade.steps.filter((s) => s.regionId === undefined) },
    lut,
    station,
    'scene',
    light,
    () => nowhere,
  )
  const out: { from: number; to: number }[] = []
  const stopsAt = (n: number): number => Math.log2(Math.max(light[n * 3 + 1], 1e-6) / middleGrey)
  for (let n = 0; n < count - 1; n++) {
    if (
      (signal[n * 3 + 4] - signal[n * 3 + 1]) * 255 <= codes ||
      signal[n * 3 + 1] < nearBlack ||
      !(light[n * 3 + 1] > 0)
    )
      continue
    const last = out.at(-1)
    const from = stopsAt(n)
    const to = stopsAt(n + 1)
    if (last && last.to >= from - 1e-9) last.to = to
    else out.push({ from, to })
  }
  return out
}
