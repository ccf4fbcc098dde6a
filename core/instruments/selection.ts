// A part of the picture that instruments are limited to: a box or ellipse drawn on it, or a region. It never touches
// the grade.
import type { Frame } from '../image'

export interface DrawnPart {
  readonly kind: 'box' | 'ellipse'
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}
export type Part = DrawnPart | { readonly kind: 'region'; readonly regionId: string }

/**
 * One byte per pixel of the frame's rows `from` up to `to` (others stay zero): 1 inside. Of a region, where its matte
 * is over a half.
 */
export function partMask(
  part: Part,
  { width, height }: Pick<Frame, 'width' | 'height'>,
  from = 0,
  to = height,
  matteOfRows: (regionId: string, from: number, to: number) => Float32Array | null = () => null,
): Uint8Array {
  const mask = new Uint8Array(width * height)
  if (part.kind === 'region') {
    const matte = matteOfRows(part.regionId, from, to) ?? new Float32Array(0)
    for (let p = 0, at = from * width; p < matte.length; p++) if (matte[p] > 0.5) mask[at + p] = 1
    return mask
  }
  const cx = (part.left + part.right) / 2
  const cy = (part.top + part.bottom) / 2
  const rx = Math.max((part.right - part.left) / 2, 0.5 / width)
  const ry = Math.max((part.bottom - part.top) / 2, 0.5 / height)
  for (let y = from; y < to; y++) {
    const dy = ((y + 0.5) / height - cy) / ry
    if (Math.abs(dy) > 1) continue
    const reach = part.kind === 'box' ? 1 : Math.sqrt(1 - dy * dy)
    const x0 = Math.max(0, Math.ceil((cx - rx * reach) * width - 0.5))
    const x1 = Math.min(width - 1, Math.floor((cx + rx * reach) * width - 0.5))
    if (x1 >= x0) mask.fill(1, y * width + x0, y * width + x1 + 1)
  }
  return mask
}
