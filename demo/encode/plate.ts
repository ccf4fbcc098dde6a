// A rendered plate: scene-linear BT.709 light as floats, read from OpenEXR with ffmpeg, and sampled between pixels.
import { execFileSync } from 'node:child_process'
import type { Patch, Window } from '../shots'

export interface Plate {
  readonly width: number
  readonly height: number
  readonly rgb: Float32Array
}

export function readPlate(path: string): Plate {
  const size = execFileSync(
    'ffprobe',
    ['-v', 'error', '-show_entries', 'stream=width,height', '-of', 'csv=p=0', path],
    { encoding: 'utf8' },
  )
  const [width = 0, height = 0] = size.trim().split(',').map(Number)
  // Planes come as G, B, R.
  const bytes = execFileSync('ffmpeg', ['-v', 'error', '-i', path, '-f', 'rawvideo', '-pix_fmt', 'gbrpf32le', '-'], {
    maxBuffer: 1 << 30,
  })
  const planes = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
  const count = width * height
  const rgb = new Float32Array(count * 3)
  for (let i = 0; i < count; i++) {
    rgb[i * 3] = planes[2 * count + i]
    rgb[i * 3 + 1] = planes[i]
    rgb[i * 3 + 2] = planes[count + i]
  }
  return { width, height, rgb }
}

/** Bilinear sample at pixel coordinates (0.5 = centre of the first pixel), held at the edges; adds to `out`. */
function addSample(
  { width, height, rgb }: Plate,
  x: number,
  y: number,
  weight: number,
  out: Float64Array,
  at: number,
): void {
  const px = Math.min(Math.max(x - 0.5, 0), width - 1.001)
  const py = Math.min(Math.max(y - 0.5, 0), height - 1.001)
  const x0 = Math.floor(px)
  const y0 = Math.floor(py)
  const fx = px - x0
  const fy = py - y0
  const a = (y0 * width + x0) * 3
  const b = a + 3
  const c = a + width * 3
  const d = c + 3
  for (let k = 0; k < 3; k++)
    out[at + k] +=
      weight * ((rgb[a + k] * (1 - fx) + rgb[b + k] * fx) * (1 - fy) + (rgb[c + k] * (1 - fx) + rgb[d + k] * fx) * fy)
}

export function windowBetween(from: Window, to: Window, t: number): Window {
  // Eased at both ends, as a hand on a fluid head.
  const s = t * t * (3 - 2 * t)
  const mix = (a: number, b: number): number => a + (b - a) * s
  return {
    x: mix(from.x, to.x),
    y: mix(from.y, to.y),
    width: mix(from.width, to.width),
    rollDegrees: mix(from.rollDegrees, to.rollDegrees),
  }
}

/** The frame seen through a window on the plate: RGB triples, four samples a pixel. */
export function frameThrough(plate: Plate, window: Window, width: number, height: number): Float64Array {
  const out = new Float64Array(width * height * 3)
  const scale = (window.width * plate.width) / width
  const angle = (window.rollDegrees * Math.PI) / 180
  const cos = Math.cos(angle) * scale
  const sin = Math.sin(angle) * scale
  const centreX = window.x * plate.width
  const centreY = window.y * plate.height
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 3)
      for (const oy of [0.25, 0.75])
        for (const ox of [0.25, 0.75]) {
          const dx = x + ox - width / 2
          const dy = y + oy - height / 2
          addSample(plate, centreX + dx * cos - dy * sin, centreY + dx * sin + dy * cos, 0.25, out, i)
        }
  return out
}

/** A patch of the plate as corners in shares of the frame seen through a window. */
export function patchInFrame(
  patch: Patch,
  plate: Plate,
  window: Window,
  width: number,
  height: number,
): [number, number][] {
  const scale = width / (window.width * plate.width)
  const angle = (-window.rollDegrees * Math.PI) / 180
  const cos = Math.cos(angle) * scale
  const sin = Math.sin(angle) * scale
  return patch.map(([sx, sy]) => {
    const dx = (sx - window.x) * plate.width
    const dy = (sy - window.y) * plate.height
    const round = (v: number): number => Math.round(v * 1e5) / 1e5
    return [round((dx * cos - dy * sin) / width + 0.5), round((dx * sin + dy * cos) / height + 0.5)]
  })
}

/** The mean light of a patch, over all pixels whose centres lie inside it. */
export function meanOfPatch({ width, height, rgb }: Plate, patch: Patch): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0]
  let count = 0
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!inside(patch, (x + 0.5) / width, (y + 0.5) / height)) continue
      for (let k = 0; k < 3; k++) sum[k] += rgb[(y * width + x) * 3 + k]
      count++
    }
  if (count === 0) throw new RangeError('The patch holds no pixels.')
  return [sum[0] / count, sum[1] / count, sum[2] / count]
}

function inside(patch: Patch, x: number, y: number): boolean {
  return patch.every(([ax, ay], i) => {
    const [bx, by] = patch[(i + 1) % patch.length]
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax) >= 0
  })
}
