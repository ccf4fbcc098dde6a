// Points worth following: corners, where brightness changes in two directions (Shi and Tomasi: Good Features to Track,
// CVPR 1994).
import type { Level } from './pyramid'

/** A place in pixels of the finest level; pixel centres are whole numbers. */
export interface Point {
  readonly x: number
  readonly y: number
}

const window = 3

/**
 * The strongest corners, at least `apart` pixels from each other, where `allowed` is not zero (one byte per pixel).
 * Of a flat picture there are none.
 */
export function corners(
  { width, height, values }: Level,
  allowed: Uint8Array,
  most: number,
  apart: number,
): readonly Point[] {
  const margin = 8
  const step = 2
  const found: { x: number; y: number; strength: number }[] = []
  for (let y = margin; y < height - margin; y += step)
    for (let x = margin; x < width - margin; x += step) {
      if (!allowed[y * width + x]) continue
      let xx = 0
      let xy = 0
      let yy = 0
      for (let v = y - window; v <= y + window; v++)
        for (let i = v * width + x - window; i <= v * width + x + window; i++) {
          const gx = values[i + 1] - values[i - 1]
          const gy = values[i + width] - values[i - width]
          xx += gx * gx
          xy += gx * gy
          yy += gy * gy
        }
      // The smaller eigenvalue of the structure tensor.
      const strength = (xx + yy) / 2 - Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy)
      if (strength > 0) found.push({ x, y, strength })
    }
  found.sort((a, b) => b.strength - a.strength)
  const least = (found[0]?.strength ?? 0) * 0.01
  const kept: Point[] = []
  const cells = new Map<number, Point[]>()
  const cell = (p: Point): number => Math.floor(p.x / apart) * 10_000 + Math.floor(p.y / apart)
  for (const p of found) {
    if (kept.length >= most || p.strength < least) break
    const at = cell(p)
    let near = false
    for (let dx = -1; dx <= 1 && !near; dx++)
      for (let dy = -1; dy <= 1 && !near; dy++)
        near = (cells.get(at + dx * 10_000 + dy) ?? []).some((o) => (o.x - p.x) ** 2 + (o.y - p.y) ** 2 < apart * apart)
    if (near) continue
    kept.push({ x: p.x, y: p.y })
    cells.set(at, [...(cells.get(at) ?? []), p])
  }
  return kept
}
