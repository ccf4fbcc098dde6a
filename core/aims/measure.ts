// What a grade makes of a sample: the numbers that aims ask for, through the exact Passage.
import {
  displayById,
  lumaWeights,
  middleGrey,
  rgbToXyz,
  transform,
  workingGamut,
  workingLuminance,
  type LumaWeights,
} from '../colour'
import {
  applyLink,
  applyPlaced,
  buildChain,
  sceneLinks,
  type Chain,
  type GradeDocument,
  type LutFinder,
  type Positions,
} from '../grade'
import { castOf, readSkin, uvOf } from '../readings'
import type { Aim } from './aim'
import type { AimSample, Strata } from './sample'

/** The numbers of every aim's goals, in the order of `goalsOf`; null where a place holds nothing to measure. */
export type Measured = ReadonlyMap<string, readonly (number | null)[]>

export function measureAims(
  grade: GradeDocument,
  lut: LutFinder,
  sample: AimSample,
  aims: readonly Aim[],
  strata = sample.coarse,
  remember = false,
): Measured {
  const chain = buildChain(grade, lut)
  const luma = lumaWeights(displayById(chain.displayId).lumaMatrix)
  const needsShown = aims.some(({ want }) => want.kind === 'level' || want.kind === 'chroma')
  const shown = needsShown ? shownOnce(grade, chain, strata, remember) : new Float64Array()
  const levels = new Map<string, Sorted>()
  const levelOf = (share: number, channel: number | undefined): number => {
    const key = String(channel)
    const known = levels.get(key)
    if (known) return quantile(known, share)
    const values = channel === undefined ? lumasOf(shown, luma) : channelOf(shown, channel)
    const sorted = sortedBy(values, strata.weights)
    levels.set(key, sorted)
    return quantile(sorted, share)
  }
  return new Map(aims.map((aim) => [aim.id, measureOne(aim)]))

  function measureOne({ id, want }: Aim): readonly (number | null)[] {
    switch (want.kind) {
      case 'level':
        return [levelOf(want.share, want.channel)]
      case 'chroma':
        return [chromaOf(shown, luma, strata.weights)]
      case 'light': {
        const [r, g, b] = leveled(chain, meanOf(id))
        const luminance = workingLuminance[0] * r + workingLuminance[1] * g + workingLuminance[2] * b
        return [Math.log2(Math.max(luminance, 1e-6) / middleGrey)]
      }
      case 'neutral': {
        const uv = uvOf(transform(rgbToXyz(workingGamut), leveled(chain, meanOf(id))))
        const cast = uv && castOf(uv, workingGamut)
        return cast ? [cast.mired, cast.duv] : [null, null]
      }
      case 'luma':
        return [mean(lumasOf(placed(id), luma))]
      case 'colour': {
        const shown = placed(id)
        const l = mean(lumasOf(shown, luma))
        const r = mean(channelOf(shown, 0))
        const b = mean(channelOf(shown, 2))
        return [l, (b - l) / luma.cbDivisor, (r - l) / luma.crDivisor]
      }
      case 'skin': {
        const shown = placed(id)
        const data = Uint16Array.from(shown, (v) => Math.round(Math.min(1, Math.max(0, v)) * 65535))
        const skin = readSkin(
          { shown: { width: data.length / 3, height: 1, data, low: 0, high: 1 }, luma },
          { left: 0, top: 0, right: 1, bottom: 1 },
        )
        return [
          ...(want.hueDegrees === undefined ? [] : [skin?.hueDegrees ?? null]),
          ...(want.luma === undefined ? [] : [skin?.luma ?? null]),
          ...(want.chroma === undefined ? [] : [skin?.chroma ?? null]),
        ]
      }
    }
  }
  function meanOf(id: string): Float64Array {
    const mean = sample.means.get(id)
    if (!mean) throw new RangeError(`The sample holds no mean for the aim "${id}".`)
    return mean
  }
  function placed(id: string): Float64Array {
    const place = sample.places.get(id)
    if (!place) throw new RangeError(`The sample holds no pixels for the aim "${id}".`)
    return shownOf(chain, place.light, place.positions)
  }
}

// A hand that drags an aim asks for the same grade's picture again and again: the one before the solution.
const lastShown = new WeakMap<Float64Array, { readonly grade: GradeDocument; readonly shown: Float64Array }>()

function shownOnce(grade: GradeDocument, chain: Chain, { light, positions }: Strata, remember: boolean): Float64Array {
  const known = lastShown.get(light)
  if (known?.grade === grade) return known.shown
  const shown = shownOf(chain, light, positions)
  if (remember) lastShown.set(light, { grade, shown })
  return shown
}

/** A mean light after Level. */
function leveled(chain: Chain, light: Float64Array): readonly [number, number, number] {
  const pixel = light.slice()
  for (const link of sceneLinks(chain, 'level')) if (link.station !== 'read') applyLink(link, pixel)
  return [pixel[0], pixel[1], pixel[2]]
}

/**
 * Display signal of scene light, not held where a pixel lies outside with all its channels: a solver must see how far
 * outside it lies.
 */
function shownOf(chain: Chain, light: Float64Array, positions: Positions): Float64Array {
  const pixels = light.slice()
  const {
    eotf: { encode },
    carriedPeak,
  } = displayById(chain.displayId)
  chain.links.forEach((link, at) => {
    if (link.station !== 'read') applyPlaced(link, pixels, positions, chain, at)
  })
  const linear = chain.leaves === 'displayLinear'
  const peak = linear ? carriedPeak : encode(carriedPeak)
  const curve = linear ? encode : (v: number): number => v
  for (let i = 0; i < pixels.length; i += 3) {
    const least = Math.min(pixels[i], pixels[i + 1], pixels[i + 2])
    const most = Math.max(pixels[i], pixels[i + 1], pixels[i + 2])
    let beyond = 0
    if (least > peak) beyond = (least - peak) * 0.4
    else if (most < 0) beyond = most * 2
    for (let c = i; c < i + 3; c++) pixels[c] = curve(Math.min(Math.max(pixels[c], 0), peak)) + beyond
  }
  return pixels
}

function lumasOf(shown: Float64Array, { red, green, blue }: LumaWeights): Float64Array {
  const out = new Float64Array(shown.length / 3)
  for (let p = 0, i = 0; p < out.length; p++, i += 3)
    out[p] = red * shown[i] + green * shown[i + 1] + blue * shown[i + 2]
  return out
}
const channelOf = (shown: Float64Array, channel: number): Float64Array =>
  Float64Array.from({ length: shown.length / 3 }, (_, p) => shown[p * 3 + channel])
const mean = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)

/** Twice the mean distance from neutral on Cb and Cr: 1 is the largest possible. */
function chromaOf(shown: Float64Array, luma: LumaWeights, weights: Float64Array): number {
  const lumas = lumasOf(shown, luma)
  let sum = 0
  for (let p = 0, i = 0; p < lumas.length; p++, i += 3)
    sum += weights[p] * Math.hypot((shown[i + 2] - lumas[p]) / luma.cbDivisor, (shown[i] - lumas[p]) / luma.crDivisor)
  return sum * 2
}

interface Sorted {
  readonly values: Float64Array
  /** Share of the frame up to the middle of each. */ readonly below: Float64Array
}

function sortedBy(values: Float64Array, weights: Float64Array): Sorted {
  const order = Uint32Array.from(values.keys()).sort((a, b) => values[a] - values[b])
  const below = new Float64Array(order.length)
  let sum = 0
  order.forEach((p, i) => {
    below[i] = sum + weights[p] / 2
    sum += weights[p]
  })
  return { values: Float64Array.from(order, (p) => values[p]), below }
}

/** The value that a share lies below, interpolated. */
function quantile({ values, below }: Sorted, share: number): number {
  let i = below.findIndex((b) => b >= share)
  if (i < 0) return values.at(-1) ?? 0
  if (i === 0) return values[0] ?? 0
  const a = below[i - 1]
  const b = below[i]
  i--
  return values[i] + ((share - a) / Math.max(1e-12, b - a)) * (values[i + 1] - values[i])
}
