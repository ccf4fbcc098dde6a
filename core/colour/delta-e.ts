// Colour difference between two display colours: CIEDE2000, and ΔE ITP where high range is involved.
import { displayById, lightOfSignal } from './displays'
import { gamutById, gamutToGamut, rgbToXyz, xyzOf } from './gamuts'
import { transform, type Vector3 } from './matrix'
import { pqNits } from './standard-curves'

/** CIE 1976 L*a*b* from XYZ relative to a white (CIE 15:2018, clause 8.2.1). */
export function labFromXyz(xyz: Vector3, white: Vector3): Vector3 {
  const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116)
  const x = f(xyz[0] / white[0])
  const y = f(xyz[1] / white[1])
  const z = f(xyz[2] / white[2])
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)]
}

/** A function from display signal (R', G', B' in 0..1) to L*a*b* relative to the display's own white. */
export function displayToLab(displayId: string): (red: number, green: number, blue: number) => Vector3 {
  const display = displayById(displayId)
  const gamut = gamutById(display.gamutId)
  const matrix = rgbToXyz(gamut)
  const white = xyzOf(gamut.white)
  const light = lightOfSignal(display)
  return (red, green, blue) => labFromXyz(transform(matrix, light(red, green, blue)), white)
}

/** A function from display signal to I, T, P of ITU-R BT.2124-0, annex 1: ICtCp of absolute light, with T = Ct / 2. */
export function displayToItp(displayId: string): (red: number, green: number, blue: number) => Vector3 {
  const display = displayById(displayId)
  const toBt2020 = gamutToGamut(gamutById(display.gamutId), gamutById('bt2020'))
  const light = lightOfSignal(display)
  const nits = (v: number): number => pqNits.encode(Math.max(v, 0) * display.whiteNits)
  return (red, green, blue) => {
    const [r, g, b] = transform(toBt2020, light(red, green, blue))
    // ITU-R BT.2100-2, table 7.
    const l = nits((1688 * r + 2146 * g + 262 * b) / 4096)
    const m = nits((683 * r + 2951 * g + 462 * b) / 4096)
    const s = nits((99 * r + 309 * g + 3688 * b) / 4096)
    return [(l + m) / 2, (6610 * l - 13613 * m + 7003 * s) / 4096 / 2, (17933 * l - 17390 * m - 543 * s) / 4096]
  }
}

/** ΔE ITP (ITU-R BT.2124-0, annex 1): 1 is about the smallest difference that can be seen. */
export function deltaEItp([i1, t1, p1]: Vector3, [i2, t2, p2]: Vector3): number {
  return 720 * Math.hypot(i1 - i2, t1 - t2, p1 - p2)
}

export interface DifferenceMeasure {
  readonly name: 'ΔE 2000' | 'ΔE ITP'
  readonly place: (red: number, green: number, blue: number) => Vector3
  readonly difference: (a: Vector3, b: Vector3) => number
}

/** How differences are measured on a display: CIEDE2000 in standard range, ΔE ITP in high range. */
export function differenceMeasure(displayId: string): DifferenceMeasure {
  return displayById(displayId).range === 'standard'
    ? { name: 'ΔE 2000', place: displayToLab(displayId), difference: deltaE2000 }
    : { name: 'ΔE ITP', place: displayToItp(displayId), difference: deltaEItp }
}

const degrees = (radians: number): number => (radians * 180) / Math.PI
const radians = (angle: number): number => (angle * Math.PI) / 180
const hueAngle = (b: number, a: number): number => (a === 0 && b === 0 ? 0 : (degrees(Math.atan2(b, a)) + 360) % 360)

/** CIEDE2000 with kL = kC = kH = 1 (ISO/CIE 11664-6:2022; Sharma, Wu and Dalal 2005). */
export function deltaE2000(first: Vector3, second: Vector3): number {
  const [l1, a1, b1] = first
  const [l2, a2, b2] = second
  const meanChroma = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2
  const g = 0.5 * (1 - Math.sqrt(meanChroma ** 7 / (meanChroma ** 7 + 25 ** 7)))
  const ap1 = (1 + g) * a1
  const ap2 = (1 + g) * a2
  const c1 = Math.hypot(ap1, b1)
  const c2 = Math.hypot(ap2, b2)
  const h1 = hueAngle(b1, ap1)
  const h2 = hueAngle(b2, ap2)
  const neutral = c1 * c2 === 0

  let dh = neutral ? 0 : h2 - h1
  if (dh > 180) dh -= 360
  else if (dh < -180) dh += 360
  let h = h1 + h2
  if (!neutral) {
    if (Math.abs(h1 - h2) <= 180) h /= 2
    else h = h < 360 ? (h + 360) / 2 : (h - 360) / 2
  }

  const dL = l2 - l1
  const dC = c2 - c1
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin(radians(dh) / 2)
  const l = (l1 + l2) / 2
  const c = (c1 + c2) / 2
  const t =
    1 -
    0.17 * Math.cos(radians(h - 30)) +
    0.24 * Math.cos(radians(2 * h)) +
    0.32 * Math.cos(radians(3 * h + 6)) -
    0.2 * Math.cos(radians(4 * h - 63))
  const sL = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2)
  const sC = 1 + 0.045 * c
  const sH = 1 + 0.015 * c * t
  const rC = 2 * Math.sqrt(c ** 7 / (c ** 7 + 25 ** 7))
  const rT = -Math.sin(radians(60 * Math.exp(-(((h - 275) / 25) ** 2)))) * rC
  return Math.sqrt((dL / sL) ** 2 + (dC / sC) ** 2 + (dH / sH) ** 2 + rT * (dC / sC) * (dH / sH))
}
