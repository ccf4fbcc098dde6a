// The Meridian: percentiles of luma from station to station, on a sample of the frame through direct evaluation.
import { displayById, fromWorkingLog, lumaWeights, toWorkingLog, workingLuminance, type MatrixId } from '../colour'
import {
  applyPlaced,
  finishSignal,
  positionsIn,
  stations,
  withRasters,
  type Chain,
  type Positions,
  type Light,
  type StationId,
} from '../grade'
import { sampleSignal, type Frame } from '../image'
import { eachColumn, noLoss, openLedger, type StationLoss } from './losses'

export const meridianShares = [0.001, 0.01, 0.1, 0.5, 0.9, 0.99, 0.999] as const

export interface MeridianStation {
  readonly station: StationId
  /** One value per share: working log before Show, display signal from Show on. */
  readonly levels: readonly number[]
  readonly loss: StationLoss
}
export interface Meridian {
  /** Luma of the code values, before anything. */
  readonly asShot: readonly number[]
  readonly stations: readonly MeridianStation[]
}

/**
 * Measures about `samples` pixels spread evenly over the frame. Steps on the display side stand in the column of
 * Finish, after Show.
 */
export function measureMeridian(chain: Chain, frame: Frame, samples = 4000): Meridian {
  const stride = oddStride(Math.max(1, Math.floor((frame.width * frame.height) / samples)))
  return measureSample(chain, sampleSignal(frame, stride), positionsIn(chain, frame, stride))
}

/** The same for a part of the frame: `mask` holds one byte per pixel, not zero inside. Null where it holds none. */
export function measurePartMeridian(chain: Chain, frame: Frame, mask: Uint8Array, samples = 2000): Meridian | null {
  const inside: number[] = []
  for (let p = 0; p < mask.length; p++) if (mask[p]) inside.push(p)
  if (inside.length === 0) return null
  const stride = Math.max(1, Math.floor(inside.length / samples))
  const scale = (frame.high - frame.low) / 65535
  const chosen = inside.filter((_, i) => i % stride === 0)
  const pixels = Float64Array.from(
    chosen.flatMap((p) => [0, 1, 2].map((c) => frame.low + frame.data[p * 3 + c] * scale)),
  )
  const shares = Float64Array.from(
    chosen.flatMap((p) => [
      ((p % frame.width) + 0.5) / frame.width,
      (Math.floor(p / frame.width) + 0.5) / frame.height,
    ]),
  )
  return measureSample(
    chain,
    pixels,
    withRasters(chain, frame, { shares, frameWidth: frame.width, frameHeight: frame.height }),
  )
}

function measureSample(chain: Chain, pixels: Float64Array, positions: Positions): Meridian {
  const asShot = percentiles(weigh(pixels, codeWeights))
  for (let i = 0; i < pixels.length; i++) pixels[i] = chain.decode(pixels[i])
  const ledger = openLedger(chain, pixels.length / 3)
  const levels = new Map<StationId, readonly number[]>()
  eachColumn(chain, (link, column, last, asks, at) => {
    applyPlaced(link, pixels, positions, chain, at)
    if (asks) ledger.after(link, column, pixels)
    if (last) levels.set(column, percentiles(levelsOf(pixels, link.leaves, chain)))
  })
  const losses = ledger.close()
  let carried = asShot
  return {
    asShot,
    stations: stations.map(({ id }) => {
      carried = levels.get(id) ?? carried
      return { station: id, levels: carried, loss: losses.get(id) ?? noLoss }
    }),
  }
}

// A stride that shares no factor with the usual frame widths, so that the sample is not a few columns.
const oddStride = (stride: number): number => (stride % 2 === 0 ? stride + 1 : stride)

type Weights = readonly [number, number, number]
const weightsOf = (matrix: MatrixId): Weights => {
  const { red, green, blue } = lumaWeights(matrix)
  return [red, green, blue]
}
const codeWeights = weightsOf('bt709')
const signalWeights = (chain: Chain): Weights => weightsOf(displayById(chain.displayId).lumaMatrix)

function weigh(pixels: Float64Array, [wr, wg, wb]: Weights): Float64Array {
  const out = new Float64Array(pixels.length / 3)
  for (let p = 0, i = 0; p < out.length; p++, i += 3) out[p] = wr * pixels[i] + wg * pixels[i + 1] + wb * pixels[i + 2]
  return out
}

function levelsOf(pixels: Float64Array, light: Light, chain: Chain): Float64Array {
  switch (light) {
    case 'code':
      return weigh(pixels, codeWeights)
    case 'sceneLinear':
      return weigh(pixels, workingLuminance).map(toWorkingLog)
    case 'workingLog':
      return weigh(pixels.map(fromWorkingLog), workingLuminance).map(toWorkingLog)
    case 'displayLinear': {
      const {
        eotf: { encode },
        carriedPeak,
      } = displayById(chain.displayId)
      return weigh(
        pixels.map((v) => encode(Math.min(Math.max(v, 0), carriedPeak))),
        signalWeights(chain),
      )
    }
    case 'displaySignal': {
      const signal = pixels.slice()
      finishSignal({ ...chain, leaves: 'displaySignal' }, signal)
      return weigh(signal, signalWeights(chain))
    }
  }
}

/** Interpolated percentiles of a list, at the Meridian's shares. */
function percentiles(values: Float64Array): readonly number[] {
  values.sort()
  return meridianShares.map((share) => {
    const at = share * (values.length - 1)
    const below = Math.floor(at)
    const a = values[below] ?? 0
    const b = values[below + 1] ?? a
    return a + (b - a) * (at - below)
  })
}

/** Where neighbouring lines run together at a station: tones that were apart and are hardly apart any more. */
export interface Merge {
  readonly station: StationId
  /** The indexes of the two shares in meridianShares. */ readonly lines: readonly [number, number]
  readonly level: number
}

/**
 * Lines that were at least a hundredth apart and are under a quarter of that after a station, from Show's scale to its
 * own excepted.
 */
export function mergesOf({ asShot, stations: measured }: Meridian): readonly Merge[] {
  const found: Merge[] = []
  let before = asShot
  for (const { station, levels } of measured) {
    // Read and Show change the scale: there the span of all lines is the measure.
    const ratio =
      station === 'read' || station === 'show'
        ? ((levels.at(-1) ?? 1) - (levels[0] ?? 0)) / Math.max(1e-9, (before.at(-1) ?? 1) - (before[0] ?? 0))
        : 1
    for (let i = 0; i + 1 < levels.length; i++) {
      const was = ((before[i + 1] ?? 0) - (before[i] ?? 0)) * Math.min(1, ratio)
      const is = (levels[i + 1] ?? 0) - (levels[i] ?? 0)
      if (was > 0.01 && is < was * 0.25) found.push({ station, lines: [i, i + 1], level: levels[i] ?? 0 })
    }
    before = levels
  }
  return found
}
