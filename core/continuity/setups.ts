// Which shots are one set-up: the same camera at the same place, seen again. Told by the layout and the colour of their
// lead frames, and by the order in which they come.
import { shrink, type Frame } from '../image'

/** A picture as it is laid out: of each cell brightness and two differences of colour, exposure and cast taken out. */
export interface Layout {
  readonly cells: Float32Array
}
export interface SetupShot {
  readonly layout: Layout
  /** Shared by files of one camera and setting; empty where that is not known. */
  readonly camera: string
}

const across = 32
const down = 18
const count = across * down
const planes = 3

/** The layout of a frame as its camera recorded it. */
export function layoutOf(frame: Frame): Layout {
  const small = shrink(frame, across, down)
  const cells = new Float32Array(count * planes)
  for (let i = 0; i < count; i++) {
    const [r, g, b] = [small.data[i * 3], small.data[i * 3 + 1], small.data[i * 3 + 2]].map((v) => v / 65535)
    cells[i] = (r + 2 * g + b) / 4
    cells[count + i] = r - g
    cells[2 * count + i] = b - g
  }
  return { cells }
}

/** The camera moves a little within a set-up: by so many cells at most. */
const mostAcross = 4
const mostDown = 3
/** Colour differences under this are noise: they are not blown up. */
const leastColour = 0.01

/** How alike two planes are where they overlap, −1…1: the correlation of what is left of them without their means. */
function correlation(a: Float32Array, b: Float32Array, plane: number, dx: number, dy: number): number {
  const at = plane * count
  let n = 0
  let sa = 0
  let sb = 0
  let saa = 0
  let sbb = 0
  let sab = 0
  for (let y = Math.max(0, -dy); y < Math.min(down, down - dy); y++)
    for (let x = Math.max(0, -dx); x < Math.min(across, across - dx); x++) {
      const p = a[at + y * across + x]
      const q = b[at + (y + dy) * across + x + dx]
      n++
      sa += p
      sb += q
      saa += p * p
      sbb += q * q
      sab += p * q
    }
  const floor = plane === 0 ? 1e-8 : leastColour ** 2
  const va = Math.max(floor, saa / n - (sa / n) ** 2)
  const vb = Math.max(floor, sbb / n - (sb / n) ** 2)
  return (sab / n - (sa / n) * (sb / n)) / Math.sqrt(va * vb)
}

/** How alike two layouts are, at most 1. */
export function likeness({ cells: a }: Layout, { cells: b }: Layout): number {
  let best = -1
  for (let dy = -mostDown; dy <= mostDown; dy++)
    for (let dx = -mostAcross; dx <= mostAcross; dx++) {
      const luma = correlation(a, b, 0, dx, dy)
      // Cheap to leave out where it cannot win.
      if (0.6 * luma + 0.4 <= best) continue
      const colour = (correlation(a, b, 1, dx, dy) + correlation(a, b, 2, dx, dy)) / 2
      best = Math.max(best, 0.6 * luma + 0.4 * colour)
    }
  return best
}

/** Layouts as alike as this are one set-up; a little less will do where the cut goes to and fro between two. */
const alike = 0.62
const toAndFro = 0.06

/** The groups of shots, two or more, that look like one set-up; by place in the reel, groups and members in order. */
export function setupsOf(shots: readonly SetupShot[]): readonly (readonly number[])[] {
  const near = shots.map((a, i) =>
    shots.map((b, k) => {
      if (k >= i) return 0
      if (a.camera !== b.camera && a.camera !== '' && b.camera !== '') return -1
      return likeness(a.layout, b.layout) + (i - k === 2 ? toAndFro : 0)
    }),
  )
  const alikeBy = (i: number, k: number): number => near[Math.max(i, k)][Math.min(i, k)]
  // The two groups that are most alike on average become one, as long as they are alike enough (average linkage).
  const groups = shots.map((_, i) => [i])
  for (;;) {
    let best: readonly [number, number, number] = [0, 0, -2]
    for (let g = 1; g < groups.length; g++)
      for (let h = 0; h < g; h++) {
        const sum = groups[g].reduce((s, i) => s + groups[h].reduce((t, k) => t + alikeBy(i, k), 0), 0)
        const mean = sum / (groups[g].length * groups[h].length)
        if (mean > best[2]) best = [g, h, mean]
      }
    const [g, h, mean] = best
    if (mean < alike) break
    groups[h] = [...groups[h], ...groups[g]].sort((a, b) => a - b)
    groups.splice(g, 1)
  }
  return groups.filter((members) => members.length > 1).sort((a, b) => a[0] - b[0])
}
