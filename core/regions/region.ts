// A region: a part of the picture as a matte of 0..1, defined independently of resolution.

/**
 * Positions are shares of the frame: x of its width, y of its height, both from the upper left.
 * Radii are shares of the frame's height, so that turning the ellipse does not change its form.
 */
export interface Ellipse {
  readonly kind: 'ellipse'
  readonly centreX: number
  readonly centreY: number
  readonly radiusX: number
  readonly radiusY: number
  /** Clockwise as seen. */
  readonly rotationDegrees: number
}

export interface Region {
  readonly id: string
  readonly name: string
  readonly enabled: boolean
  readonly shape: Ellipse
  /** 0..1: the width of the soft edge as a share of the radius, half inside and half outside the line. */
  readonly feather: number
  readonly invert: boolean
}

export const regionBounds = {
  centre: { min: -1, max: 2 },
  radius: { min: 0.005, max: 3 },
  rotationDegrees: { min: -360, max: 360 },
  feather: { min: 0, max: 1 },
} as const

/** A function from a point (x, y as shares of the frame) to the matte value there. `aspect` is width / height. */
export function matteAt(region: Region, aspect: number, frameHeight: number): (x: number, y: number) => number {
  const { centreX, centreY, radiusX, radiusY, rotationDegrees } = region.shape
  const angle = (rotationDegrees * Math.PI) / 180
  const cos = Math.cos(angle), sin = Math.sin(angle)
  // A hard edge is still one pixel wide, so that it is smooth on screen.
  const onePixel = 1 / (frameHeight * Math.min(radiusX, radiusY))
  const softness = Math.max(region.feather, onePixel)
  const inner = Math.max(0, 1 - softness / 2), outer = 1 + softness / 2
  return (x, y) => {
    const dx = (x - centreX) * aspect, dy = y - centreY
    const distance = Math.hypot((dx * cos + dy * sin) / radiusX, (dy * cos - dx * sin) / radiusY)
    const t = Math.min(Math.max((outer - distance) / (outer - inner), 0), 1)
    const matte = t * t * (3 - 2 * t)
    return region.invert ? 1 - matte : matte
  }
}

/** The matte of a frame's rows from `fromRow` up to, not including, `toRow`: one value per pixel at pixel centres, row by row. */
export function renderMatte(region: Region, width: number, height: number, fromRow = 0, toRow = height): Float32Array {
  const matte = new Float32Array(width * (toRow - fromRow))
  const at = matteAt(region, width / height, height)
  for (let y = fromRow, i = 0; y < toRow; y++) {
    const v = (y + 0.5) / height
    for (let x = 0; x < width; x++, i++) matte[i] = at((x + 0.5) / width, v)
  }
  return matte
}
