// A picture as matching looks at it: scene light after Read, small, with what the camera clipped marked.
import { applyLink, buildChain, type GradeDocument, type LutFinder } from '../grade'
import { fitWithin, shrink, type Frame } from '../image'

export interface LightPicture {
  readonly width: number
  readonly height: number
  /** Scene light in the working space: RGB triples, row by row. */
  readonly light: Float32Array
  /** 1 where a channel stands at the top of what the camera recorded. */
  readonly clipped: Uint8Array
}

const mostWidth = 480
const mostHeight = 270
/** A top code that this share of the pixels stands at is where the camera clips. */
const clippingShare = 5e-4

/** The light of a frame, read as its grade reads it. */
export function lightPicture(frame: Frame, grade: GradeDocument, lut: LutFinder): LightPicture {
  const { width, height } = fitWithin(frame.width, frame.height, mostWidth, mostHeight)
  const small = shrink(frame, width, height)
  const chain = buildChain(grade, lut)
  const scale = (small.high - small.low) / 65535
  const pixels = Float64Array.from(small.data, (code) => chain.decode(small.low + code * scale))
  for (const link of chain.links) if (link.station === 'read') applyLink(link, pixels)
  return { width, height, light: Float32Array.from(pixels), clipped: clippedIn(small) }
}

function clippedIn({ width, height, data }: Frame): Uint8Array {
  const clipped = new Uint8Array(width * height)
  let top = 0
  for (const code of data) if (code > top) top = code
  const edge = top - 0.004 * 65535
  let count = 0
  for (const code of data) if (code >= edge) count++
  if (count < data.length * clippingShare) return clipped
  for (let p = 0, i = 0; p < clipped.length; p++, i += 3)
    if (data[i] >= edge || data[i + 1] >= edge || data[i + 2] >= edge) clipped[p] = 1
  return clipped
}
