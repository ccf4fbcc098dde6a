// A chart of 24 patches that is laid on by its corners: what it says of exposure, of the light's white, and of the
// camera's colours, as the Level step and a matrix that leaves greys alone.
import { deltaE2000, transform, workingGamut, workingLuminance, type Vector3 } from '../colour'
import { cameraMatrixOf, sceneLight, whiteBalanceMatrix, type CameraMatrix, type Chain } from '../grade'
import type { Frame } from '../image'
import { castOfRgb } from '../readings'
import { chartColumns, chartPatches, chartRows, labOfLight, lightOfLab, readGreys } from './chart-patches'
import { placesOn, type Corners, type Point } from './four-corners'

export interface PatchReading {
  readonly name: string
  /** Working-linear light as it is read, as it is once all is set, and as the chart is known. */
  readonly measured: Vector3
  readonly corrected: Vector3
  readonly known: Vector3
  /** CIEDE2000 as read, with exposure and white set, and with the matrix too. */
  readonly asRead: number
  readonly balanced: number
  readonly matched: number
  /** A channel of it is cut off: it says nothing. */
  readonly clipped: boolean
}

export interface ChartReading {
  readonly patches: readonly PatchReading[]
  /** What Level is to be set to. */
  readonly exposureStops: number
  readonly temperatureMired: number
  readonly tint: number
  readonly matrix: CameraMatrix
  /** How many quarter turns the chart lies from the order of its corners. */
  readonly turned: 0 | 1 | 2 | 3
  /** Empty, or why these numbers are not to be trusted. */
  readonly doubt: string
}

/** So much of a patch's width and height about its middle is read: its edge may be off by the rest. */
const readShare = 0.5
/** Lines of samples across a patch. */
const samples = 13
/** A patch narrower than this is mostly edge. */
const leastPixels = 4
const fewestPatches = 12
/** Over this, set right as well as it goes, it is some other thing. */
const mostLikely = 12
const known: readonly Vector3[] = chartPatches.map(({ lab }) => lightOfLab(lab))
const luminanceOf = ([r, g, b]: Vector3): number =>
  workingLuminance[0] * r + workingLuminance[1] * g + workingLuminance[2] * b

/** The middles of the patches, in shares of the chart. */
export const patchMiddles: readonly Point[] = chartPatches.map((_, i) => ({
  x: ((i % chartColumns) + 0.5) / chartColumns,
  y: (Math.floor(i / chartColumns) + 0.5) / chartRows,
}))

/**
 * Reads a chart. `corners` are in shares of the frame, about the outer edges of the corner patches, in any turn.
 * `chain` reads the frame; Level has no part in it. Throws RangeError for corners that cross, for a chart that is too
 * small, and where too few patches are left.
 */
export function readChart(
  { source, chain }: { readonly source: Frame; readonly chain: Chain },
  corners: Corners,
): ChartReading {
  const inPixels = corners.map(({ x, y }) => ({ x: x * source.width, y: y * source.height })) as unknown as Corners
  const turns = ([0, 1, 2, 3] as const).map((turned) => {
    const [a, b, c, d] = [0, 1, 2, 3].map((i) => inPixels[(i + turned) % 4]) as unknown as Corners
    return solved(readPatches(source, chain, [a, b, c, d]), turned)
  })
  return turns.reduce((best, one) => (meanOf(one, 'balanced') < meanOf(best, 'balanced') ? one : best))
}

export const meanOf = (
  { patches }: Pick<ChartReading, 'patches'>,
  which: 'asRead' | 'balanced' | 'matched',
): number => {
  const counted = patches.filter((p) => !p.clipped)
  return counted.reduce((sum, p) => sum + p[which], 0) / counted.length
}

interface ReadPatch {
  readonly light: Vector3
  readonly clipped: boolean
}

function readPatches(source: Frame, chain: Chain, corners: Corners): readonly ReadPatch[] {
  const at = placesOn(corners)
  const [a, b, , d] = corners
  const across = Math.hypot(b.x - a.x, b.y - a.y) / chartColumns
  const down = Math.hypot(d.x - a.x, d.y - a.y) / chartRows
  // A chart that lies on its side is tried too, and found wrong by its colours.
  if (Math.max(across, down) < leastPixels)
    throw new RangeError('The chart is too small in this frame: a patch must be at least 4 pixels wide.')
  const { width, height, data, low, high } = source
  const scale = (high - low) / 65535
  return patchMiddles.map((middle) => {
    const codes: number[] = []
    for (let j = 0; j < samples; j++)
      for (let i = 0; i < samples; i++) {
        const u = middle.x + ((i / (samples - 1) - 0.5) * readShare) / chartColumns
        const v = middle.y + ((j / (samples - 1) - 0.5) * readShare) / chartRows
        const { x, y } = at(u, v)
        const column = Math.min(width - 1, Math.max(0, Math.floor(x)))
        const row = Math.min(height - 1, Math.max(0, Math.floor(y)))
        const from = (row * width + column) * 3
        for (let c = 0; c < 3; c++) codes.push(low + data[from + c] * scale)
      }
    const top = codes.filter((v) => v >= 0.998).length / codes.length
    const light = sceneLight(chain, 'read', Float64Array.from(codes))
    return { light: middleLight(light), clipped: top > 0.05 }
  })
}

/** The mean of the middle half of each channel: a speck or a glint on a patch does not count. */
function middleLight(light: Float64Array): Vector3 {
  const count = light.length / 3
  const channel = (c: number): number => {
    const sorted = Float64Array.from({ length: count }, (_, p) => light[p * 3 + c]).sort()
    const part = sorted.subarray(Math.floor(count / 4), Math.ceil((count * 3) / 4))
    return part.reduce((sum, v) => sum + v, 0) / part.length
  }
  return [channel(0), channel(1), channel(2)]
}

function solved(read: readonly ReadPatch[], turned: ChartReading['turned']): ChartReading {
  const greys = readGreys.filter((i) => !read[i].clipped && luminanceOf(read[i].light) > 1e-5)
  if (greys.length === 0 || read.filter((p) => !p.clipped).length < fewestPatches)
    throw new RangeError('Too many patches are cut off at the top of the codes: the chart says nothing.')
  const { temperatureMired, tint } = whiteOf(greys.map((i) => read[i].light))
  const balance = whiteBalanceMatrix(workingGamut, temperatureMired, tint)
  const white = read.map(({ light }) => transform(balance, light))
  const stops = greys.map((i) => Math.log2(luminanceOf(known[i]) / luminanceOf(white[i])))
  const exposureStops = stops.reduce((sum, v) => sum + v, 0) / stops.length
  const gain = 2 ** exposureStops
  const balanced = white.map(([r, g, b]): Vector3 => [r * gain, g * gain, b * gain])
  const matrix = matrixFrom(balanced, read)
  const mix = cameraMatrixOf(matrix)
  const patches = read.map(({ light, clipped }, i): PatchReading => {
    const wanted = labOfLight(known[i])
    const off = (of: Vector3): number => deltaE2000(labOfLight(of), wanted)
    return {
      name: chartPatches[i]?.name ?? '',
      measured: light,
      corrected: transform(mix, balanced[i]),
      known: known[i],
      asRead: off(light),
      balanced: off(balanced[i]),
      matched: off(transform(mix, balanced[i])),
      clipped,
    }
  })
  const reading = { patches, exposureStops, temperatureMired, tint, matrix, turned }
  return { ...reading, doubt: doubtOf(reading, stops) }
}

function doubtOf(reading: Omit<ChartReading, 'doubt'>, stops: readonly number[]): string {
  if (meanOf(reading, 'matched') > mostLikely)
    return 'These colours are not the chart’s: check the corners and the reading of the file.'
  if (Math.max(...stops) - Math.min(...stops) > 0.5)
    return 'Its greys do not run as light does: check the reading of the file, flare and uneven light.'
  return ''
}

/** The white balance that makes these greys neutral on the mean. */
function whiteOf(greys: readonly Vector3[]): { readonly temperatureMired: number; readonly tint: number } {
  let [temperatureMired, tint] = [0, 0]
  // The step is not quite linear in its numbers: each round takes away what is left.
  for (let round = 0; round < 6; round++) {
    const matrix = whiteBalanceMatrix(workingGamut, temperatureMired, tint)
    const sum: [number, number, number] = [0, 0, 0]
    for (const grey of greys) {
      const seen = transform(matrix, grey)
      const luminance = luminanceOf(seen)
      for (let c = 0; c < 3; c++) sum[c] += seen[c] / luminance
    }
    const cast = castOfRgb(sum, workingGamut)
    if (!cast) break
    temperatureMired -= cast.mired
    tint += cast.duv * 1000
  }
  return { temperatureMired, tint }
}

/**
 * Least squares over the patches, each weighed as the eye does (the slope of a cube root), a row of the matrix at a
 * time: what a channel is short of by what the other two are more.
 */
function matrixFrom(balanced: readonly Vector3[], read: readonly ReadPatch[]): CameraMatrix {
  const row = (own: number, first: number, second: number): readonly [number, number] => {
    let [aa, ab, bb, ay, by] = [1e-9, 0, 1e-9, 0, 0]
    balanced.forEach((light, i) => {
      if (read[i].clipped) return
      const weight = Math.max(luminanceOf(known[i]), 0.01) ** (-4 / 3)
      const a = light[first] - light[own]
      const b = light[second] - light[own]
      const y = known[i][own] - light[own]
      aa += weight * a * a
      ab += weight * a * b
      bb += weight * b * b
      ay += weight * a * y
      by += weight * b * y
    })
    const det = aa * bb - ab * ab
    return det < 1e-12 ? [0, 0] : [(ay * bb - by * ab) / det, (by * aa - ay * ab) / det]
  }
  const [redOfGreen, redOfBlue] = row(0, 1, 2)
  const [greenOfRed, greenOfBlue] = row(1, 0, 2)
  const [blueOfRed, blueOfGreen] = row(2, 0, 1)
  return { redOfGreen, redOfBlue, greenOfRed, greenOfBlue, blueOfRed, blueOfGreen }
}
