// The colour of light against neutral: how far a colour is from the white, in mired and Duv, and back.
import { rgbToXyz, transform, whiteChromaticity, whitePointOf, type Gamut, type Vector3 } from '../colour'

/** A colour of light, as it differs from the white it should have. */
export interface Cast {
  /** Positive is warmer (more yellow) than neutral. */
  readonly mired: number
  /** Positive is greener than neutral; CIE 1960 units. */
  readonly duv: number
  /** Distance from neutral on CIE 1960 u, v, × 1000. */
  readonly distance: number
}

export interface Uv {
  readonly u: number
  readonly v: number
}

/** CIE 1960 u, v of an XYZ; null where there is no light. */
export function uvOf([x, y, z]: Vector3): Uv | null {
  const d = x + 15 * y + 3 * z
  return d > 1e-9 ? { u: (4 * x) / d, v: (6 * y) / d } : null
}

/**
 * The cast of a neutral surface of the given chromaticity. It is counted as the white balance step counts: relative to
 * the foot of the gamut's own white on the locus, so that `temperatureMired = −mired` and `tint = duv × 1000` take it
 * away.
 */
export function castOf({ u, v }: Uv, gamut: Gamut): Cast {
  const white = uvOfXy(gamut.white)
  const target = whitePointOf(gamut.white)
  const foot = uvOfXy(whiteChromaticity(target))
  // The step moves x, y; the difference is taken there.
  const xy = xyOfUv({ u, v })
  const whiteXy = gamut.white
  const footXy = xyOfUv(foot)
  const moved = whitePointOf({ x: xy.x - whiteXy.x + footXy.x, y: xy.y - whiteXy.y + footXy.y })
  return {
    mired: moved.mired - target.mired,
    duv: moved.duv - target.duv,
    distance: Math.hypot(u - white.u, v - white.v) * 1000,
  }
}

export function castOfRgb(rgb: Vector3, gamut: Gamut): Cast | null {
  const uv = uvOf(transform(rgbToXyz(gamut), rgb))
  return uv && castOf(uv, gamut)
}

const uvOfXy = ({ x, y }: { readonly x: number; readonly y: number }): Uv => {
  const d = -2 * x + 12 * y + 3
  return { u: (4 * x) / d, v: (6 * y) / d }
}
const xyOfUv = ({ u, v }: Uv): { readonly x: number; readonly y: number } => {
  const d = 2 * u - 8 * v + 4
  return { x: (3 * u) / d, y: (2 * v) / d }
}

/** "warm by 12 mired, green by 4 Duv ×10³": only what is worth saying. */
export function castWords({ mired, duv }: Pick<Cast, 'mired' | 'duv'>): string {
  const parts: string[] = []
  if (Math.abs(mired) >= 1) parts.push(`${mired > 0 ? 'warm' : 'cool'} by ${Math.abs(mired).toFixed(0)} mired`)
  if (Math.abs(duv) >= 0.0005)
    parts.push(`${duv > 0 ? 'green' : 'magenta'} by ${Math.abs(duv * 1000).toFixed(1)} Duv ×10³`)
  return parts.length > 0 ? parts.join(', ') : 'neutral'
}
