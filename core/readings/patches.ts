// Connected patches of marked pixels.
import type { Area } from './picture'

export interface Patch {
  readonly pixels: number
  /** All pixels of the picture. */
  readonly of: number
  readonly area: Area
}

export interface Patches {
  readonly largest: Patch | null
  /** Pixels that lie in patches of fewer than `size` pixels. */
  readonly pixelsInPatchesUnder: (size: number) => number
}

/**
 * The four-connected patches of marked pixels. Runs of each row are joined with those of the row above (union–find).
 */
export function patchesOf(marks: Uint8Array, width: number, height: number): Patches {
  const parent: number[] = []
  const size: number[] = []
  const box: number[][] = []
  const rootOf = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]]
    return i
  }
  let above: [number, number, number][] = []
  for (let y = 0; y < height; y++) {
    const row: [number, number, number][] = []
    let next = 0
    for (let x = 0; x < width; x++) {
      if (!marks[y * width + x]) continue
      const from = x
      while (x < width && marks[y * width + x]) x++
      const id = parent.length
      parent.push(id)
      size.push(x - from)
      box.push([from, y, x, y + 1])
      row.push([from, x, id])
      while (next < above.length && above[next][1] <= from) next++
      for (let k = next; k < above.length && above[k][0] < x; k++) {
        const a = rootOf(above[k][2])
        const b = rootOf(id)
        if (a === b) continue
        parent[a] = b
        size[b] += size[a]
        const [p, q] = [box[a], box[b]]
        box[b] = [Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[2], q[2]), Math.max(p[3], q[3])]
      }
    }
    above = row
  }
  const roots = parent.flatMap((up, i) => (up === i ? [i] : []))
  const best = roots.reduce((most, i) => (most < 0 || size[i] > size[most] ? i : most), -1)
  const patchAt = (i: number): Patch => {
    const [x0, y0, x1, y1] = box[i]
    return {
      pixels: size[i],
      of: width * height,
      area: { left: x0 / width, top: y0 / height, right: x1 / width, bottom: y1 / height },
    }
  }
  return {
    largest: best < 0 ? null : patchAt(best),
    pixelsInPatchesUnder: (least) => roots.reduce((sum, i) => sum + (size[i] < least ? size[i] : 0), 0),
  }
}
