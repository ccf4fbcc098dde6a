// Motions of the plane for tests: turned and scaled about a place, then moved.
import { motionAfter, similarity, translation, type Homography } from '../../core/regions/homography'

export function rotate(degrees: number, scale: number, u: number, v: number, dx = 0, dy = 0): Homography {
  const r = (degrees * Math.PI) / 180
  return motionAfter(
    translation(u + dx, v + dy),
    motionAfter(similarity(Math.cos(r) * scale, Math.sin(r) * scale, 0, 0), translation(-u, -v)),
  )
}
