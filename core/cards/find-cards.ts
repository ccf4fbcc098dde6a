// Grey cards in a picture: flat, four-sided fields of one colour and several brightnesses, side by side. No light is
// taken for granted: a card is told by its steps, which are grey under whatever falls on them.
import { sceneLight, type Chain } from '../grade'
import { fitWithin, shrink, type Frame } from '../image'
import { castOf, uvOf, type Area } from '../readings'
import { rgbToXyz, transform, workingGamut } from '../colour'
import { flatFields, type FlatField } from './flat-fields'
import { fourSided } from './four-sided'

export interface FoundCard {
  /** Inside the middle grey, to be read as a card that was pointed out. */
  readonly area: Area
  /** The whole of its fields. */
  readonly outline: Area
  /** Stops of its black and its white over its grey. */
  readonly steps: readonly [black: number, white: number]
}

const looked = { width: 960, height: 540 } as const
const leastLight = 1e-5
/** A field of the smallest card has so many pixels once its edges are left out. */
const leastPixels = 10
/** The smallest card is three in a hundred of the width across: its grey at least this share. */
const leastGreyWidth = 0.016
const most = { uneven: 0.12, chroma: 0.12, duv: 0.035 } as const
interface Shape {
  readonly solid: number
  readonly cornered: number
  readonly square: number
}
/** Of fields of few pixels the corners are lost among them. */
function leastOf(pixels: number): Shape {
  if (pixels < 60) return { solid: 0.7, cornered: 0.7, square: 0.6 }
  return { solid: 0.82, cornered: pixels < 400 ? 0.8 : 0.88, square: 0.62 }
}
/** A square that stands on its corner fills half of the box about it. */
const leastFilled = 0.4
/** Stops over two pixels within one field. */
const steps = [0.16, 0.07, 0.03] as const
/** Stops from grey (18 %) to the white and the black beside it: 80…95 % and 2…6 %, with what shadow adds. */
const whiteOver = { least: 1.9, most: 2.9 } as const
/** White and black lie within so many widths of the grey; a row of steps goes on further. */
const reach = { step: 1.5, row: 3.5 } as const
/** Over this a field beside it is brighter than any white can be. */
const brighterThanWhite = 3.2
const blackUnder = { least: 1.7, most: 3.6 } as const

interface Field extends FlatField {
  readonly long: number
  readonly short: number
}

/** The cards of a picture, surest first. `chain` reads the frame: Level has no part in it. */
export function findCards({ source, chain }: { source: Frame; chain: Chain }): readonly FoundCard[] {
  const { width, height } = fitWithin(source.width, source.height, looked.width, looked.height)
  const frame = shrink(source, width, height)
  const stops = stopsOf(frame, chain)
  // A card may lie on something as bright as itself: the finer the step, the less runs into each other, until noise
  // breaks it up.
  const fields = steps.flatMap((step) =>
    flatFields(stops, width, height, step, leastPixels).flatMap((field) => shapedField(field, width)),
  )
  const cards = fields.flatMap((grey) => {
    const card = cardOf(grey, fields, width, height)
    return card ? [{ card, off: offUsual(card) }] : []
  })
  cards.sort((a, b) => a.off - b.off)
  return cards.map((c) => c.card).filter((card, i, all) => !all.slice(0, i).some((before) => overlap(before, card)))
}

/** White of 90 % lies so many stops over grey, black of 3 % so many under it. */
const usualSteps = { white: Math.log2(0.9 / 0.18), black: Math.log2(0.03 / 0.18) } as const
const offUsual = ({ steps: [black, white] }: FoundCard): number =>
  Math.abs(white - usualSteps.white) + Math.abs(black - usualSteps.black) / 3

const overlap = ({ outline: a }: FoundCard, { outline: b }: FoundCard): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom

function shapedField(field: FlatField, width: number): readonly Field[] {
  const { x0, x1, y0, y1 } = field.box
  if (field.uneven > most.uneven || field.pixels.length < (x1 - x0) * (y1 - y0) * leastFilled) return []
  const { solid, cornered, square, long, short } = fourSided(field.pixels, width)
  const least = leastOf(field.pixels.length)
  const fits = solid >= least.solid && cornered >= least.cornered && square >= least.square
  return fits ? [{ ...field, long, short }] : []
}

/** log2 of scene light, each pixel with its neighbours: noise is taken out, edges stay within two pixels. */
function stopsOf({ width, data, low, high }: Frame, chain: Chain): Float32Array {
  const scale = (high - low) / 65535
  const codes = new Float64Array(data.length)
  for (let i = 0; i < data.length; i++) codes[i] = low + data[i] * scale
  const light = sceneLight(chain, 'read', codes)
  const across = meanOfThree(light, 3, width * 3)
  const down = meanOfThree(across, width * 3, light.length)
  const out = new Float32Array(down.length)
  for (let i = 0; i < down.length; i++) out[i] = Math.log2(Math.max(down[i], leastLight))
  return out
}

/** Means of each value and its neighbours `stride` away, within lines of `line` values. */
function meanOfThree(values: Float64Array, stride: number, line: number): Float64Array {
  const out = new Float64Array(values.length)
  for (let start = 0; start < values.length; start += line)
    for (let i = start; i < start + line; i++) {
      const before = i - stride >= start ? values[i - stride] : values[i]
      const after = i + stride < start + line ? values[i + stride] : values[i]
      out[i] = (before + values[i] + after) / 3
    }
  return out
}

function cardOf(grey: Field, fields: readonly Field[], width: number, height: number): FoundCard | null {
  if (grey.short < leastGreyWidth * width || grey.long > grey.short * 2.5) return null
  if (!isLight(grey)) return null
  const alike = fields.filter((f) => f !== grey && sameColour(f, grey) && near(f, grey, reach.row))
  const beside = alike.filter((f) => near(f, grey, reach.step))
  const over = (f: Field): number => f.stops - grey.stops
  // What has a brighter field of its own kind is not the grey but a step of the card.
  if (alike.some((f) => over(f) > brighterThanWhite && f.pixels.length > grey.pixels.length * 0.4)) return null
  const whites = beside.filter((f) => over(f) >= whiteOver.least && over(f) <= whiteOver.most)
  const blacks = beside.filter((f) => -over(f) >= blackUnder.least && -over(f) <= blackUnder.most)
  const [white, black] = [closest(whites, grey), closest(blacks, grey)]
  // With all three it is a card; fields that are alike in size and colour by chance are rarely so in brightness too.
  if (!white || !black) return null
  const all = [grey, white, black]
  const inner = innerArea(grey, width, height)
  if (!inner) return null
  return {
    area: inner,
    outline: {
      left: Math.min(...all.map((f) => f.box.x0)) / width,
      right: Math.max(...all.map((f) => f.box.x1)) / width,
      top: Math.min(...all.map((f) => f.box.y0)) / height,
      bottom: Math.max(...all.map((f) => f.box.y1)) / height,
    },
    steps: [over(black), over(white)],
  }
}

/** A grey thing has the colour of its light, and light lies near the daylight and Planckian line. */
function isLight({ stops, redMore, blueMore }: Field): boolean {
  const rgb = [2 ** (stops + redMore), 2 ** stops, 2 ** (stops + blueMore)] as const
  const uv = uvOf(transform(rgbToXyz(workingGamut), rgb))
  return uv !== null && Math.abs(castOf(uv, workingGamut).duv) < most.duv
}
/** Dark fields are known less well, and light from about falls on them. */
function sameColour(a: Field, b: Field): boolean {
  const darker = Math.min(a.stops, b.stops) < b.stops - 1 ? 2 : 1
  return Math.hypot(a.redMore - b.redMore, a.blueMore - b.blueMore) < most.chroma * darker
}
/** Fields of one card lie beside each other, and none is much larger than its grey. */
function near(a: Field, grey: Field, reached: number): boolean {
  const gapX = Math.max(a.box.x0 - grey.box.x1, grey.box.x0 - a.box.x1, 0)
  const gapY = Math.max(a.box.y0 - grey.box.y1, grey.box.y0 - a.box.y1, 0)
  return Math.hypot(gapX, gapY) < Math.max(8, grey.short * reached) && a.pixels.length < grey.pixels.length * 1.6
}
function closest(fields: readonly Field[], grey: Field): Field | undefined {
  const away = ({ box }: Field): number =>
    Math.hypot(box.x0 + box.x1 - grey.box.x0 - grey.box.x1, box.y0 + box.y1 - grey.box.y0 - grey.box.y1)
  return [...fields].sort((a, b) => away(a) - away(b))[0]
}

/** The middle of a field, where all of it is the field's, or nearly all where single pixels are noisy. */
function innerArea({ pixels, box }: Field, width: number, height: number): Area | null {
  const own = new Set(pixels)
  const [cx, cy] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2]
  for (const filled of [0.97, 0.85])
    for (const share of [0.7, 0.55, 0.4]) {
      const [hw, hh] = [((box.x1 - box.x0) * share) / 2, ((box.y1 - box.y0) * share) / 2]
      const [x0, x1] = [Math.ceil(cx - hw), Math.floor(cx + hw)]
      const [y0, y1] = [Math.ceil(cy - hh), Math.floor(cy + hh)]
      let inside = 0
      for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) if (own.has(y * width + x)) inside++
      if (x1 - x0 >= 2 && y1 - y0 >= 2 && inside >= (x1 - x0) * (y1 - y0) * filled)
        return { left: x0 / width, right: x1 / width, top: y0 / height, bottom: y1 / height }
    }
  return null
}
