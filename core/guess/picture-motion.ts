// How the camera moved between two frames, so that their difference is noise and not the edge of a moving wall.
import type { Frame } from '../image'
import { noMotion, type Homography } from '../regions/homography'
import { corners, fitMotion, follow, pyramidOf, type Level } from '../regions/track'

const mostCorners = 60
/** Share of the followed corners that must agree. */
const agreement = 0.4

/** Pictures are followed no larger than this: noise is measured block by block, and whole pixels are near enough. */
const mostWidth = 480

/**
 * The motion of most of the picture from one frame to the next, in pixels: place, size and turn. None where too few
 * corners agree.
 */
export function pictureMotion(a: Frame, b: Frame): Homography {
  const from = pyramidOf(greenOf(a))
  const to = pyramidOf(greenOf(b))
  const finest = Math.max(
    0,
    from.levels.findIndex((l) => l.width <= mostWidth),
  )
  const level = from.levels[finest]
  const scale = 2 ** finest
  const points = corners(level, new Uint8Array(level.values.length).fill(1), mostCorners, level.height / 16)
  const pairs = points.flatMap(({ x, y }) => {
    const point = { x: x * scale, y: y * scale }
    const there = follow(from, to, point, point, finest)
    return there ? [{ from: point, to: { x: there.x, y: there.y } }] : []
  })
  const fit = fitMotion('similarity', pairs, scale)
  return fit && fit.inliers.length >= pairs.length * agreement ? fit.motion : noMotion
}

function greenOf({ width, height, data }: Frame): Level {
  const values = new Float32Array(width * height)
  for (let i = 0; i < values.length; i++) values[i] = data[i * 3 + 1] / 65535
  return { width, height, values }
}
