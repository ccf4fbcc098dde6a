// Clips whose motion is known, for tests: a textured card before another texture, moved frame by frame, with noise,
// exposure and what hides it.
import { inverseMotion, type Homography } from '../../core/regions/homography'
import type { Level } from '../../core/regions/track/pyramid'

export interface MadeClip {
  readonly name: string
  readonly frames: number
  /** From frame 0 to frame n, in pixels. */
  readonly motion: (n: number) => Homography
  /** Factor on brightness. */
  readonly light?: (n: number) => number
  /** A bar that hides part of the card: its left and right edge in pixels. */
  readonly hidden?: (n: number) => readonly [number, number] | null
  readonly noise?: number
}

export const clipSize = { width: 960, height: 540 } as const
/** The card in frame 0. */
export const card = { left: 340, top: 170, right: 620, bottom: 370 } as const

/** Smooth noise over a lattice of places, several sizes added: texture at every scale. */
function texture(seed: number): (x: number, y: number) => number {
  const value = (i: number, j: number, k: number): number => {
    let h = (i * 374761393 + j * 668265263 + k * 2147483647 + seed * 974634) | 0
    h = Math.imul(h ^ (h >>> 13), 1274126177)
    return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32
  }
  const octave = (x: number, y: number, size: number, k: number): number => {
    const u = x / size
    const v = y / size
    const i = Math.floor(u)
    const j = Math.floor(v)
    const f = u - i
    const g = v - j
    const s = f * f * (3 - 2 * f)
    const t = g * g * (3 - 2 * g)
    const a = value(i, j, k)
    const b = value(i + 1, j, k)
    const c = value(i, j + 1, k)
    const d = value(i + 1, j + 1, k)
    return a + (b - a) * s + (c - a + (a - b - c + d) * s) * t
  }
  return (x, y) => 0.15 + 0.3 * octave(x, y, 46, 1) + 0.28 * octave(x, y, 19, 2) + 0.22 * octave(x, y, 9, 3)
}
/**
 * A texture painted once, two samples for a pixel, and read straight between them: a frame is then a matter of
 * milliseconds.
 */
function painted(
  seed: number,
  left: number,
  top: number,
  width: number,
  height: number,
): (x: number, y: number) => number {
  const at = texture(seed)
  const w = width * 2
  const h = height * 2
  const values = new Float32Array(w * h)
  for (let j = 0, i = 0; j < h; j++) for (let k = 0; k < w; k++, i++) values[i] = at(left + k / 2, top + j / 2)
  return (x, y) => {
    const u = Math.min(w - 1.001, Math.max(0, (x - left) * 2))
    const v = Math.min(h - 1.001, Math.max(0, (y - top) * 2))
    const i = (v | 0) * w + (u | 0)
    const f = u - (u | 0)
    const g = v - (v | 0)
    const a = values[i]!
    const b = values[i + 1]!
    const c = values[i + w]!
    const d = values[i + w + 1]!
    return a + (b - a) * f + (c - a + (a - b - c + d) * f) * g
  }
}
const onCard = painted(11, card.left - 4, card.top - 4, card.right - card.left + 8, card.bottom - card.top + 8)
const behind = painted(5, -4, -4, clipSize.width + 40, clipSize.height + 8)
const onBar = painted(77, -4, -4, clipSize.width + 40, clipSize.height + 8)

/** Brightness of a frame, by the mean of two places in every pixel. */
export function frameOf({ motion, light = () => 1, hidden = () => null, noise = 0.02 }: MadeClip, n: number): Level {
  const { width, height } = clipSize
  const back = inverseMotion(motion(n))
  const values = new Float32Array(width * height)
  const gain = light(n)
  const bar = hidden(n)
  let state = ((n + 1) * 2654435761) >>> 0
  const random = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
  const at = (x: number, y: number): number => {
    if (bar && x >= bar[0] && x < bar[1]) return onBar(x, y)
    const w = back[6] * x + back[7] * y + back[8]
    const u = (back[0] * x + back[1] * y + back[2]) / w
    const v = (back[3] * x + back[4] * y + back[5]) / w
    // Edges of half a pixel: a card that is resampled has no harder ones.
    const inside = Math.min(
      1,
      Math.max(0, Math.min(u - card.left, card.right - u, v - card.top, card.bottom - v) + 0.5),
    )
    return inside <= 0 ? behind(x + n * 0.31, y) : behind(x + n * 0.31, y) * (1 - inside) + onCard(u, v) * inside
  }
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const own = (at(x - 0.25, y - 0.25) + at(x + 0.25, y + 0.25)) / 2
      // Three evenly spread numbers make a bell.
      values[i] = own * gain + (random() + random() + random() - 1.5) * 2 * noise
    }
  return { width, height, values }
}

const about = (x: number, y: number, degrees: number, scale: number, dx: number, dy: number): Homography => {
  const r = (degrees * Math.PI) / 180
  const a = Math.cos(r) * scale
  const b = Math.sin(r) * scale
  return [a, -b, x - a * x + b * y + dx, b, a, y - b * x - a * y + dy, 0, 0, 1]
}
const cx = (card.left + card.right) / 2
const cy = (card.top + card.bottom) / 2
/** A wall seen ever more from one side. */
const tilted = (t: number): Homography => {
  const k = 0.0011 * t
  const m: Homography = [1, 0, 0, 0, 1, 0, k, 0, 1]
  const to: Homography = [1, 0, cx, 0, 1, cy, 0, 0, 1]
  const from: Homography = [1, 0, -cx, 0, 1, -cy, 0, 0, 1]
  return chain(to, chain(m, from))
}
const chain = (a: Homography, b: Homography): Homography =>
  [0, 3, 6].flatMap((r) =>
    [0, 1, 2].map((c) => a[r]! * b[c]! + a[r + 1]! * b[c + 3]! + a[r + 2]! * b[c + 6]!),
  ) as unknown as Homography

export const madeClips: readonly (MadeClip & {
  readonly kind: 'position' | 'similarity' | 'affine' | 'perspective'
  /** It must be lost, or claimed only where it is right. */ readonly vanishes?: true
})[] = [
  { name: 'moving sideways', kind: 'position', frames: 18, motion: (n) => about(cx, cy, 0, 1, n * 11, 0) },
  {
    name: 'moving on a curve',
    kind: 'position',
    frames: 20,
    motion: (n) => about(cx, cy, 0, 1, 160 * Math.sin(n / 8), 110 * (1 - Math.cos(n / 8)) - n),
  },
  {
    name: 'shaking',
    kind: 'position',
    frames: 14,
    motion: (n) => about(cx, cy, 0, 1, 9 * Math.sin(n * 2.1), 7 * Math.cos(n * 1.7) - 7),
  },
  { name: 'rolling by 90°', kind: 'similarity', frames: 24, motion: (n) => about(480, 270, n * (90 / 23), 1, 0, 0) },
  {
    name: 'growing to twice its size',
    kind: 'similarity',
    frames: 20,
    motion: (n) => about(cx, cy, 0, 2 ** (n / 19), n, -n * 0.4),
  },
  {
    name: 'shrinking by half while it turns',
    kind: 'similarity',
    frames: 20,
    motion: (n) => about(cx, cy, n * 1.8, 2 ** (-n / 19), n * 2, n),
  },
  {
    name: 'leaning',
    kind: 'affine',
    frames: 18,
    motion: (n) =>
      chain(
        [1, 0, cx + n * 1.2, 0, 1, cy, 0, 0, 1],
        chain([1, n * 0.018, 0, 0, 1 + n * 0.009, 0, 0, 0, 1], [1, 0, -cx, 0, 1, -cy, 0, 0, 1]),
      ),
  },
  { name: 'seen from the side', kind: 'perspective', frames: 18, motion: (n) => tilted(n / 17) },
  {
    name: 'seen from the side, turning and moving',
    kind: 'perspective',
    frames: 18,
    motion: (n) => chain(about(cx, cy, n, 1 + n * 0.01, n * 1.5, 0), tilted(n / 24)),
  },
  {
    name: 'with the light going down by a stop',
    kind: 'similarity',
    frames: 18,
    light: (n) => 2 ** (-n / 17),
    motion: (n) => about(cx, cy, n * 0.5, 1, n * 2.2, -n),
  },
  {
    name: 'with the light going up by a stop',
    kind: 'position',
    frames: 18,
    light: (n) => 2 ** (n / 17),
    motion: (n) => about(cx, cy, 0, 1, -n * 3, n),
  },
  {
    name: 'partly hidden by what passes before it',
    kind: 'similarity',
    frames: 24,
    hidden: (n) => [220 + n * 18, 310 + n * 18],
    motion: (n) => about(cx, cy, n * 0.3, 1, n * 0.8, 0),
  },
  {
    name: 'partly hidden while it moves',
    kind: 'position',
    frames: 18,
    hidden: (n) => (n > 4 && n < 13 ? [430, 520] : null),
    motion: (n) => about(cx, cy, 0, 1, n * 3.1, n * 0.6),
  },
  {
    name: 'wholly hidden',
    kind: 'position',
    frames: 14,
    hidden: (n) => (n > 8 ? [300, 760] : null),
    motion: (n) => about(cx, cy, 0, 1, n * 2, 0),
    vanishes: true,
  },
  {
    name: 'leaving the frame',
    kind: 'position',
    frames: 24,
    motion: (n) => about(cx, cy, 0, 1, n * 30, 0),
    vanishes: true,
  },
]
export const cardCentre = { x: cx, y: cy } as const
