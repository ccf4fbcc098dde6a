// Where a shape's outline, its soft edge and its handles are drawn. The drawing's unit is the frame's height: the frame
// is `aspect` wide and 1 high. Shapes lie in the plane where they were drawn; `through` takes them into the picture.
import { isTurned, outlineOf, type Shape, type TurnedShape } from '@core/regions'
import { text } from '../text'
import { boxOf, type Grip, type Place, type Softness } from './shape-grips'

export interface Handle {
  readonly grip: Grip
  readonly x: number
  readonly y: number
  readonly name: string
  readonly value: number
  readonly round?: boolean
  readonly small?: boolean
}
export type Placing = (u: number, v: number) => Place
const { overlay: words } = text.regions

const pathOf = (places: readonly Place[], closed: boolean): string =>
  places.map(([x, y], i) => `${i === 0 ? 'M' : 'L'} ${x.toFixed(4)} ${y.toFixed(4)}`).join(' ') +
  (closed && places.length > 1 ? ' Z' : '')

/** The outline as SVG path data; a linear gradient is the line from its whole to its nothing. */
export function outlinePath(shape: Shape, aspect: number, through: Placing): string {
  if (shape.kind === 'linear')
    return pathOf([through(shape.fromX * aspect, shape.fromY), through(shape.toX * aspect, shape.toY)], false)
  return pathOf(
    outlineOf(shape, aspect).map(([u, v]) => through(u, v)),
    true,
  )
}

/** A turned shape that is larger by `by` frame heights all round. */
function grown(shape: TurnedShape, by: number): TurnedShape {
  if (shape.kind === 'rectangle')
    return { ...shape, radiusX: Math.max(0.004, shape.radiusX + by), radiusY: Math.max(0.004, shape.radiusY + by) }
  const share = Math.max(0.02, 1 + by / Math.min(shape.radiusX, shape.radiusY))
  return { ...shape, radiusX: shape.radiusX * share, radiusY: shape.radiusY * share }
}

/** The two ends of a turned shape's soft edge; a radial gradient has an inner one only, other shapes none. */
export function softEdgePaths(
  shape: Shape,
  softness: Softness,
  aspect: number,
  through: Placing,
): { readonly inner: string; readonly outer: string | null } | null {
  if (!isTurned(shape)) return null
  if (shape.kind === 'radial') {
    const share = Math.max(0.02, shape.core)
    const core = { ...shape, kind: 'ellipse', radiusX: shape.radiusX * share, radiusY: shape.radiusY * share } as const
    return { inner: outlinePath(core, aspect, through), outer: null }
  }
  return {
    inner: outlinePath(grown(shape, -softness.inner), aspect, through),
    outer: outlinePath(grown(shape, softness.outer), aspect, through),
  }
}

/** The line from an opened point's one handle over the point to the other. */
export function armPath(shape: Shape, openPoint: number | null, aspect: number, through: Placing): string | null {
  const p = shape.kind === 'path' && openPoint !== null ? shape.points[openPoint] : undefined
  if (!p) return null
  const places: readonly Place[] = [
    through(p.inX * aspect, p.inY),
    through(p.x * aspect, p.y),
    through(p.outX * aspect, p.outY),
  ]
  return pathOf(places, false)
}

/** Every handle of a shape; `pixel` is what one hundredth of the fitted frame is at the present zoom, in its height. */
export function handlesOf(
  shape: Shape,
  openPoint: number | null,
  aspect: number,
  pixel: number,
  through: Placing,
): readonly Handle[] {
  const handle = (
    grip: Grip,
    [u, v]: Place,
    name: string,
    value: number,
    form: Pick<Handle, 'round' | 'small'> = {},
  ): Handle => {
    const [x, y] = through(u, v)
    return { grip, x, y, name, value, ...form }
  }
  if (shape.kind === 'linear')
    return [
      handle('from', [shape.fromX * aspect, shape.fromY], words.whole, shape.fromY * 100),
      handle('to', [shape.toX * aspect, shape.toY], words.nothing, shape.toY * 100),
    ]
  if (isTurned(shape)) {
    const { centreX, centreY, radiusX, radiusY, rotationDegrees } = shape
    const a = (rotationDegrees * Math.PI) / 180
    const at = (x: number, y: number): Place => [
      centreX * aspect + x * Math.cos(a) - y * Math.sin(a),
      centreY + x * Math.sin(a) + y * Math.cos(a),
    ]
    return [
      handle('right', at(radiusX, 0), words.right, radiusX * 100),
      handle('left', at(-radiusX, 0), words.left, radiusX * 100),
      handle('bottom', at(0, radiusY), words.bottom, radiusY * 100),
      handle('top', at(0, -radiusY), words.top, radiusY * 100),
      handle('turn', at(0, -radiusY - 0.06 * pixel), words.turn, rotationDegrees, { round: true }),
    ]
  }
  const { left, top, right, bottom } = boxOf(shape, aspect)
  const opened = shape.kind === 'path' && openPoint !== null ? shape.points[openPoint] : undefined
  const bend = { round: true, small: true }
  return [
    ...shape.points.map((p, i) => handle({ point: i, part: 'at' }, [p.x * aspect, p.y], words.point(i + 1), p.x * 100)),
    ...(opened && openPoint !== null
      ? [
          handle(
            { point: openPoint, part: 'in' },
            [opened.inX * aspect, opened.inY],
            words.handle(openPoint + 1, 'in'),
            0,
            bend,
          ),
          handle(
            { point: openPoint, part: 'out' },
            [opened.outX * aspect, opened.outY],
            words.handle(openPoint + 1, 'out'),
            0,
            bend,
          ),
        ]
      : []),
    handle('turn', [(left + right) / 2, top - 0.06 * pixel], words.turn, 0, { round: true }),
    handle('size', [right + 0.03 * pixel, bottom + 0.03 * pixel], words.size, 100),
  ]
}
