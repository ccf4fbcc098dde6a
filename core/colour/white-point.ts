// Whites as colour temperature (in mired) and distance from the Planckian locus (Duv), and back.
import { clamp } from '../numbers'
import type { Chromaticity } from './gamuts'

/** Mired of a temperature in kelvin, and the reverse. */
export const miredOf = (kelvin: number): number => 1e6 / kelvin

interface Uv {
  readonly u: number
  readonly v: number
}

/** CIE 1960 u, v of the Planckian locus; Krystek 1985, equation 4. Good for 1000–15000 K. */
function planckian(mired: number): Uv {
  const t = 1e6 / mired
  return {
    u: (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (1 + 8.42420235e-4 * t + 7.08145163e-7 * t * t),
    v: (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (1 - 2.89741816e-5 * t + 1.61456053e-7 * t * t),
  }
}

/** The unit normal of the locus, pointing to positive Duv (greener). */
function normal(mired: number): Uv {
  const step = 0.01
  const before = planckian(mired - step)
  const after = planckian(mired + step)
  const du = after.u - before.u
  const dv = after.v - before.v
  const length = Math.hypot(du, dv)
  return { u: -dv / length, v: du / length }
}

export interface WhitePoint {
  /** Correlated colour temperature in mired (1e6 / K). */
  readonly mired: number
  /** Signed distance from the Planckian locus in CIE 1960 u, v; positive is greener. */
  readonly duv: number
}

const lowestMired = 1e6 / 15000
const highestMired = 1e6 / 1000

/** The chromaticity of a white. Mired is bounded to 66.7–1000 (15000–1000 K), where the locus formula is good. */
export function whiteChromaticity({ mired, duv }: WhitePoint): Chromaticity {
  const bounded = clamp(mired, lowestMired, highestMired)
  const on = planckian(bounded)
  const n = normal(bounded)
  const u = on.u + duv * n.u
  const v = on.v + duv * n.v
  const d = 2 * u - 8 * v + 4
  return { x: (3 * u) / d, y: (2 * v) / d }
}

/** The white's mired and Duv: the foot of the perpendicular on the locus, by golden-section search. */
export function whitePointOf({ x, y }: Chromaticity): WhitePoint {
  const d = -2 * x + 12 * y + 3
  const u = (4 * x) / d
  const v = (6 * y) / d
  const distance = (mired: number): number => Math.hypot(planckian(mired).u - u, planckian(mired).v - v)
  const ratio = (Math.sqrt(5) - 1) / 2
  let low = lowestMired
  let high = highestMired
  while (high - low > 1e-9) {
    const a = high - ratio * (high - low)
    const b = low + ratio * (high - low)
    if (distance(a) < distance(b)) high = b
    else low = a
  }
  const mired = (low + high) / 2
  const on = planckian(mired)
  const n = normal(mired)
  return { mired, duv: (u - on.u) * n.u + (v - on.v) * n.v }
}
