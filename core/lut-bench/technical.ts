// Tables that only change how a signal is written: its range, its display gamma, or a display picture to HLG or PQ.
import { encodingById, gamutById, gamutToGamut, transform, type Vector3 } from '../colour'
import { applyLut, type Lut } from '../luts'

/** Root mean square of the signal that may be left over, 0..1. */
const within = 0.001
const displays = ['bt709-camera', 'srgb', 'gamma-2.2', 'gamma-2.4', 'gamma-2.6'] as const
const nameOf = (id: string): string => encodingById(id).name

type Rgb = readonly [number, number, number]

/** What the table does, as the end of a sentence that begins with "It"; null where it does more than that. */
export function technicalOf(lut: Lut): string | null {
  const steps = 8
  const colours: Rgb[] = []
  for (let r = 0; r <= steps; r++)
    for (let g = 0; g <= steps; g++) for (let b = 0; b <= steps; b++) colours.push([r / steps, g / steps, b / steps])
  const out = Float64Array.from(colours.flat())
  applyLut(lut, out, 'tetrahedral')
  const distance = (of: (rgb: Rgb) => Rgb): number => {
    let sum = 0
    colours.forEach((colour, p) => of(colour).forEach((v, c) => (sum += (v - out[p * 3 + c]) ** 2)))
    return Math.sqrt(sum / out.length)
  }
  const each =
    (of: (v: number) => number) =>
    (rgb: Rgb): Rgb =>
      rgb.map(of) as unknown as Rgb
  const clamped = (v: number): number => Math.min(1, Math.max(0, v))
  const found = [
    { does: 'turns codes of legal range to full range', off: distance(each((v) => clamped((v * 1023 - 64) / 876))) },
    { does: 'turns codes of full range to legal range', off: distance(each((v) => (v * 876 + 64) / 1023)) },
    ...displays.flatMap((from) =>
      displays.flatMap((to) => {
        if (from === to) return []
        const { decode } = encodingById(from).curve
        const { encode } = encodingById(to).curve
        return [
          {
            does: `takes a display picture from ${nameOf(from)} to ${nameOf(to)}`,
            off: distance(each((v) => clamped(encode(decode(v))))),
          },
        ]
      }),
    ),
    ...toHighRange(out.subarray(-3), distance),
  ].sort((a, b) => a.off - b.off)
  return found[0] && found[0].off < within ? found[0].does : null
}

/** A display picture as HLG or PQ, its white where the table puts it. */
function toHighRange(
  white: Float64Array,
  distance: (of: (rgb: Rgb) => Rgb) => number,
): readonly { readonly does: string; readonly off: number }[] {
  return ['hlg', 'pq'].flatMap((id) => {
    const { encode, decode } = encodingById(id).curve
    const light = decode(white[1] ?? 0)
    if (!(light > 0)) return []
    return ['gamma-2.4', 'gamma-2.2', 'srgb'].flatMap((from) =>
      ['bt2020', 'p3-d65', 'bt709'].map((gamutId) => {
        const matrix = gamutToGamut(gamutById('bt709'), gamutById(gamutId))
        const toLight = encodingById(from).curve.decode
        return {
          does: `puts a display picture (${nameOf(from)}) into ${nameOf(id)}`,
          off: distance((rgb) => {
            const shown = transform(matrix, rgb.map(toLight) as unknown as Vector3)
            return shown.map((v) => encode(Math.max(0, v) * light)) as unknown as Rgb
          }),
        }
      }),
    )
  })
}
