// Overall tone and colour, where two pictures share nothing: what lies at the same share of each is taken for the same.
// It is a likeness of mood, not of things.
import type { LightPicture } from './light'
import type { Light, SharedSurface } from './surfaces'

/** Shares of the pixels, from dark to bright; the ends are left out: a lamp or a hole says nothing of the scene. */
const shares = [0.1, 0.3, 0.5, 0.7, 0.9] as const
const whole = { left: 0, right: 1, top: 0, bottom: 1 } as const

export function overallSurfaces(here: LightPicture, there: LightPicture): readonly SharedSurface[] {
  const [a, b] = [tonesOf(here), tonesOf(there)]
  return shares.map((_, id) => ({ id, here: a[id], there: b[id], hereArea: whole, thereArea: whole, places: 4 }))
}

/** Mean light of the pixels within a tenth about each share of a picture, by brightness. */
function tonesOf({ light, clipped }: LightPicture): readonly Light[] {
  const order = Uint32Array.from(clipped.keys()).filter((p) => !clipped[p])
  const level = (p: number): number => light[p * 3] + light[p * 3 + 1] + light[p * 3 + 2]
  order.sort((p, q) => level(p) - level(q))
  return shares.map((share) => {
    const from = Math.floor((share - 0.1) * order.length)
    const to = Math.max(from + 1, Math.ceil((share + 0.1) * order.length))
    const sum = [0, 0, 0]
    for (let i = from; i < to && i < order.length; i++) for (let c = 0; c < 3; c++) sum[c] += light[order[i] * 3 + c]
    const n = Math.max(1, Math.min(to, order.length) - from)
    return [sum[0] / n, sum[1] / n, sum[2] / n]
  })
}
