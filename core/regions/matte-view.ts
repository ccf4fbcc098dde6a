// Looking at a matte: as a grey picture, as the picture where it holds, as a line, or as its edge.
export type MatteViewId = 'grey' | 'on-grey' | 'on-black' | 'outline' | 'edge'
export interface MatteView {
  readonly id: MatteViewId
  readonly name: string
  readonly tip: string
}
export const matteViews: readonly MatteView[] = [
  { id: 'grey', name: 'Matte', tip: 'White where the region holds, black where it does not.' },
  { id: 'on-grey', name: 'On grey', tip: 'The picture inside, grey outside.' },
  { id: 'on-black', name: 'On black', tip: 'The picture inside, black outside.' },
  { id: 'outline', name: 'Outline', tip: 'A line where the region holds by half.' },
  { id: 'edge', name: 'Edge', tip: 'Hatched where the region is neither whole nor nothing.' },
]

const packed = (r: number, g: number, b: number): number => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0
const ink = packed(233, 226, 207)
const dark = packed(16, 16, 16)
const surround: Readonly<Record<'on-grey' | 'on-black', number>> = { 'on-grey': 118, 'on-black': 0 }

/**
 * Paints rows `from` up to `to` of canvas pixels.
 * @param matte of rows `from` up to `to`, and one more where there is one: a line lies between two rows
 */
export function paintMatte(
  view: MatteViewId,
  matte: Float32Array,
  canvas: Uint32Array,
  width: number,
  from: number,
  to: number,
): void {
  const last = matte.length - width
  for (let p = from * width, i = 0; p < to * width; p++, i++) {
    const m = matte[i]
    switch (view) {
      case 'grey': {
        const v = Math.round(m * 255)
        canvas[p] = packed(v, v, v)
        break
      }
      case 'on-grey':
      case 'on-black': {
        const c = canvas[p]
        const s = surround[view] * (1 - m)
        canvas[p] = packed(
          Math.round((c & 255) * m + s),
          Math.round(((c >> 8) & 255) * m + s),
          Math.round(((c >> 16) & 255) * m + s),
        )
        break
      }
      case 'outline': {
        const inside = m > 0.5
        const edge =
          ((i + 1) % width !== 0 && matte[i + 1] > 0.5 !== inside) || (i < last && matte[i + width] > 0.5 !== inside)
        if (edge) canvas[p] = ink
        break
      }
      case 'edge':
        if (m > 0.01 && m < 0.99) canvas[p] = (((p % width) + Math.floor(p / width)) & 7) < 4 ? dark : ink
    }
  }
}
