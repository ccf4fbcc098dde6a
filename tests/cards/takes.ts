// Pictures with and without a made grey card, held at an angle into a real photograph, as a camera writes them.
import { encodingById, gamutById, transformPixels } from '@core/colour'
import { buildChain, defaultGrade, whiteBalanceMatrix, type Chain } from '@core/grade'
import type { Frame } from '@core/image'
import { framed, lightOf, photograph } from '../guess/photographs'
import { gaussian, randomSource, type Light } from '../guess/scenes'

export interface CardTake {
  readonly name: string
  readonly frame: Frame
  readonly chain: Chain
  /** Where the middle grey of the card lies, as corners in pixels; null without a card. */
  readonly grey: readonly (readonly [number, number])[] | null
  /** The whole card's width as a share of the frame's. */
  readonly share: number
}

const size = { width: 960, height: 540 } as const
const encodings = ['log-420-95', 'log-400-95-a', 'log-372-127', 'log-433-128', 'hlg'] as const
type Box = readonly [left: number, top: number, right: number, bottom: number]
interface Layout {
  readonly aspect: number
  /** The smallest it is made, of the frame's width: a row is several times as wide as its grey. */
  readonly leastShare: number
  readonly fields: readonly { readonly box: Box; readonly reflectance: number }[]
}

/** Cards as they are held into shots: a large grey with two steps beside it, and rows of steps. */
const layouts: readonly Layout[] = [
  {
    aspect: 1.36,
    leastShare: 0.03,
    fields: [
      { box: [0, 0, 0.74, 1], reflectance: 0.18 },
      { box: [0.78, 0, 1, 0.49], reflectance: 0.9 },
      { box: [0.78, 0.51, 1, 1], reflectance: 0.03 },
    ],
  },
  { aspect: 3, leastShare: 0.06, fields: row([0.9, 0.18, 0.03]) },
  { aspect: 3, leastShare: 0.06, fields: row([0.03, 0.18, 0.85]) },
  { aspect: 4.2, leastShare: 0.1, fields: row([0.9, 0.4, 0.18, 0.08, 0.035]) },
]
function row(reflectances: readonly number[]): Layout['fields'] {
  const n = reflectances.length
  return reflectances.map((reflectance, i) => ({ box: [(i + 0.02) / n, 0, (i + 0.98) / n, 1] as const, reflectance }))
}

export function cardTake(photo: string, seed: number, withCard: boolean): CardTake {
  const random = randomSource(seed * 6007 + 13)
  for (let n = 0; n < 4; n++) random()
  const scene = framed(lightOf(photograph(photo), 3 + 2 * random()), {
    ...size,
    x: random(),
    y: random(),
    share: 0.5 + 0.5 * random(),
    mirrored: random() < 0.5,
    movedX: 0,
    movedY: 0,
  })
  const layout = layouts[Math.floor(random() * layouts.length)]!
  const share = layout.leastShare * 6 ** (random() ** 1.5)
  const held = withCard ? hold(scene, layout, share, random) : { light: scene, grey: null }
  return { name: photo, ...shot(held.light, random), grey: held.grey, share }
}

/** A card in the scene's light at an angle, a little brighter at one side, with a black edge. */
function hold(
  { width, height, data }: Light,
  { aspect, fields }: Layout,
  share: number,
  random: () => number,
): { readonly light: Light; readonly grey: CardTake['grey'] } {
  const out = data.slice()
  const w = share * width
  const h = w / aspect
  const turn = (random() - 0.5) * 0.5
  const skew = (random() - 0.5) * 0.3
  const room = Math.hypot(w, h)
  const [cx, cy] = [room / 2 + random() * (width - room), room / 2 + random() * Math.max(1, height - room)]
  const shade = (random() - 0.5) * 0.6
  const lit = 2 ** ((random() - 0.5) * 1.6)
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
  /** From shares of the card to pixels: turned, and narrower toward one side. */
  const place = (u: number, v: number): readonly [number, number] => {
    const x = (u - 0.5) * w
    const y = (v - 0.5) * h * (1 + skew * (u - 0.5))
    return [cx + cos * x - sin * y, cy + sin * x + cos * y]
  }
  const samples = 3
  const reach = Math.ceil(room / 2) + 2
  for (let y = Math.max(0, Math.floor(cy - reach)); y < Math.min(height, cy + reach); y++)
    for (let x = Math.max(0, Math.floor(cx - reach)); x < Math.min(width, cx + reach); x++) {
      const sum = [0, 0, 0]
      for (let sy = 0; sy < samples; sy++)
        for (let sx = 0; sx < samples; sx++) {
          const [px, py] = [x + (sx + 0.5) / samples - cx, y + (sy + 0.5) / samples - cy]
          const u = (cos * px + sin * py) / w + 0.5
          const v = (cos * py - sin * px) / (h * (1 + skew * (u - 0.5))) + 0.5
          const on = u >= -0.02 && u <= 1.02 && v >= -0.03 && v <= 1.03
          const field = fields.find(({ box: [l, t, r, b] }) => u >= l && u < r && v >= t && v < b)
          const level = (field?.reflectance ?? 0.05) * lit * 2 ** (shade * (u - 0.5))
          for (let c = 0; c < 3; c++) sum[c]! += on ? level : data[(y * width + x) * 3 + c]!
        }
      for (let c = 0; c < 3; c++) out[(y * width + x) * 3 + c] = sum[c]! / samples ** 2
    }
  const [l, t, r, b] = fields.find((f) => f.reflectance === 0.18)!.box
  return {
    light: { width, height, data: out },
    grey: [place(l, t), place(r, t), place(r, b), place(l, b)],
  }
}

/** The light as a camera writes it: exposed and lit otherwise, with noise. */
function shot({ width, height, data }: Light, random: () => number): { readonly frame: Frame; readonly chain: Chain } {
  const encodingId = encodings[Math.floor(random() * encodings.length)]!
  const { curve } = encodingById(encodingId)
  const gain = 2 ** (random() * 3 - 1.5)
  const light = data.map((v) => v * gain)
  transformPixels(whiteBalanceMatrix(gamutById('bt709'), (random() - 0.5) * 120, (random() - 0.5) * 20), light)
  const noise = 0.001 + 0.003 * random()
  const codes = Uint16Array.from(light, (v) => {
    const noisy = v + gaussian(random) * Math.sqrt((noise / 4) ** 2 + (noise ** 2 * Math.max(v, 0)) / 0.18)
    return Math.round(Math.min(1, Math.max(0, curve.encode(noisy))) * 65535)
  })
  const grade = defaultGrade(encodingId, 'bt709')
  return { frame: { width, height, data: codes, low: 0, high: 1 }, chain: buildChain(grade, () => undefined) }
}

/** Whether an area lies wholly within corners that go round. */
export function liesWithin(
  { left, top, right, bottom }: { left: number; top: number; right: number; bottom: number },
  corners: readonly (readonly [number, number])[],
  slack = 1.5,
): boolean {
  const inside = (x: number, y: number): boolean => {
    const turns = corners.map(([ax, ay], i) => {
      const [bx, by] = corners[(i + 1) % corners.length]!
      return ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / Math.hypot(bx - ax, by - ay)
    })
    return turns.every((t) => t >= -slack)
  }
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ].every(([x, y]) => inside(x! * size.width, y! * size.height))
}
