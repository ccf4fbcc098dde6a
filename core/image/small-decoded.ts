// A decoded picture as a small frame: its planes are averaged before anything is converted, which for a large one is
// most of the work. Averaging and the way from Y'CbCr to R'G'B' are both linear, so that the order does not matter.
import { clamp } from '../numbers'
import { frameOfDecoded, spanOf, type DecodedPicture } from './decoded'
import type { Frame } from './frame'
import { chromaHeight, chromaWidth, splitPlanes, type Samples } from './planes'
import { areas, fitWithin, shrink, type Areas } from './resample'
import { rotate } from './rotate'
import { yuvNumbers } from './yuv'

/** The frame as it is to be looked at, no larger than asked: to a code what shrink() makes of the whole one. */
export function smallFrameOfDecoded(picture: DecodedPicture, maxWidth: number, maxHeight: number): Frame {
  const { layout, rotation } = picture
  const upright = rotation % 180 === 0
  const shown = upright
    ? fitWithin(layout.width, layout.height, maxWidth, maxHeight)
    : fitWithin(layout.height, layout.width, maxWidth, maxHeight)
  const [width, height] = upright ? [shown.width, shown.height] : [shown.height, shown.width]
  if (width === layout.width && height === layout.height) return frameOfDecoded(picture)
  if (layout.model !== 'ycbcr' || layout.bitDepth > 16)
    return shrink(frameOfDecoded(picture), shown.width, shown.height)
  return rotate(smallYcbcr(picture, width, height), rotation)
}

function smallYcbcr({ planes, layout, range, matrix }: DecodedPicture, width: number, height: number): Frame {
  const { y, cb, cr } = splitPlanes(planes, layout)
  const [across, down] = [areas(layout.width, width), areas(layout.height, height)]
  const wide = layout.chromaShiftX ? chromaAreas(across, chromaWidth(layout), besideLuma) : across
  const high = layout.chromaShiftY ? chromaAreas(down, chromaHeight(layout), betweenLines) : down
  const luma = shrunkPlane(y, layout.width, across, down)
  const [blue, red] = [cb, cr].map((plane) => shrunkPlane(plane, chromaWidth(layout), wide, high))
  const data = new Uint16Array(width * height * 3)
  const n = yuvNumbers(layout, range, matrix)
  for (let p = 0, o = 0; p < luma.length; p++, o += 3) {
    const light = luma[p] * n.lumaGain + n.offset
    const b = blue[p] - n.middle
    const r = red[p] - n.middle
    data[o] = clamp(light + n.redFromCr * r, 0, 65535)
    data[o + 1] = clamp(light + n.greenFromCb * b + n.greenFromCr * r, 0, 65535)
    data[o + 2] = clamp(light + n.blueFromCb * b, 0, 65535)
  }
  return { width, height, data, ...spanOf(layout, range) }
}

type Shares = readonly (readonly [sample: number, weight: number])[]
/** Across, chroma lies on every other luma sample, and halfway between two there is as much of both. */
const besideLuma = (at: number): Shares =>
  at % 2 === 0
    ? [[at / 2, 1]]
    : [
        [(at - 1) / 2, 0.5],
        [(at + 1) / 2, 0.5],
      ]
/** Down, a line of chroma lies between two of luma (the usual siting of 4:2:0). */
const betweenLines = (at: number): Shares =>
  at % 2 === 0
    ? [
        [at / 2 - 1, 0.25],
        [at / 2, 0.75],
      ]
    : [
        [(at - 1) / 2, 0.75],
        [(at + 1) / 2, 0.25],
      ]

/** Areas of luma samples as those of the chroma samples that these are interpolated from. */
function chromaAreas({ first, sample, weight }: Areas, count: number, sharesOf: (at: number) => Shares): Areas {
  const starts = new Uint32Array(first.length)
  const samples: number[] = []
  const weights: number[] = []
  for (let t = 0; t + 1 < first.length; t++) {
    const sums = new Map<number, number>()
    for (let k = first[t]; k < first[t + 1]; k++)
      for (const [at, share] of sharesOf(sample[k])) {
        const held = clamp(at, 0, count - 1)
        sums.set(held, (sums.get(held) ?? 0) + share * weight[k])
      }
    for (const [at, sum] of sums) {
      samples.push(at)
      weights.push(sum)
    }
    starts[t + 1] = samples.length
  }
  return { first: starts, sample: Uint32Array.from(samples), weight: Float64Array.from(weights) }
}

/** Down first: whole rows are added up in the order that they lie in. */
function shrunkPlane(plane: Samples, stride: number, across: Areas, down: Areas): Float32Array {
  const [width, height] = [across.first.length - 1, down.first.length - 1]
  const out = new Float32Array(width * height)
  const sum = new Float64Array(stride)
  for (let y = 0; y < height; y++) {
    sum.fill(0)
    for (let k = down.first[y]; k < down.first[y + 1]; k++) {
      const from = down.sample[k] * stride
      addRow(plane.subarray(from, from + stride), down.weight[k], sum)
    }
    narrowRow(sum, across, out.subarray(y * width, (y + 1) * width))
  }
  return out
}

function addRow(row: Samples, weight: number, sum: Float64Array): void {
  const count = sum.length
  for (let i = 0; i < count; i++) sum[i] += row[i] * weight
}

function narrowRow(row: Float64Array, { first, sample, weight }: Areas, out: Float32Array): void {
  let k = 0
  for (let x = 0; x < out.length; x++) {
    let total = 0
    for (const end = first[x + 1]; k < end; k++) total += row[sample[k]] * weight[k]
    out[x] = total
  }
}
