// Overlays on the picture: marks, zebra, the stops map, single channels. They are painted on the finished picture and
// change nothing that is measured.
import { fromWorkingLog, middleGrey, workingLuminance, type LumaWeights } from '../colour'
import { gamutTapZero, type TapId } from '../grade'
import type { Frame } from '../image'
import { eachOutOfRange } from './delivery-range'

export interface Overlay {
  readonly id: OverlayId
  readonly name: string
  readonly tip: string
  /** What else of the Passage it looks at. */
  readonly tap?: TapId
}
export type OverlayId =
  | 'clipped'
  | 'crushed'
  | 'outOfRange'
  | 'outOfGamut'
  | 'hotEnds'
  | 'zebra'
  | 'stops'
  | 'red'
  | 'green'
  | 'blue'
  | 'luma'

export const overlays: readonly Overlay[] = [
  { id: 'clipped', name: 'Clipped', tip: 'Hatched: pixels with a channel at the very top.' },
  { id: 'crushed', name: 'Crushed', tip: 'Hatched: pixels with all channels at the very bottom.' },
  { id: 'outOfRange', name: 'Out of range', tip: 'Hatched: outside the bounds of EBU R 103 once delivered as 4:2:2.' },
  { id: 'outOfGamut', name: 'Out of gamut', tip: 'Hatched: colours that the display does not have.', tap: 'gamut' },
  {
    id: 'hotEnds',
    name: 'Colour at the ends',
    tip: 'Hatched: much chroma in deep shadow or bright light, where it looks like a fault.',
  },
  { id: 'zebra', name: 'Zebra', tip: 'Stripes where luma lies within the chosen band.' },
  {
    id: 'stops',
    name: 'Stops map',
    tip: 'Scene light before Show in stops from middle grey: blue under it, yellow over it, lighter is brighter.',
    tap: 'look',
  },
  { id: 'red', name: 'Red alone', tip: 'The red channel as a grey picture.' },
  { id: 'green', name: 'Green alone', tip: 'The green channel as a grey picture.' },
  { id: 'blue', name: 'Blue alone', tip: 'The blue channel as a grey picture.' },
  { id: 'luma', name: 'Without colour', tip: 'Luma alone, for judging tone.' },
]
export const overlayById = (id: OverlayId): Overlay => overlays.find((o) => o.id === id) ?? overlays[0]

export interface OverlaySettings {
  readonly id: OverlayId
  readonly zebra: { readonly low: number; readonly high: number }
}

/** The stops that the map tells apart: the outermost hold all beyond. */
export const mapStops = [-6, -5, -4, -3, -2, -1, 0, 1, 2, 3, 4, 5, 6] as const
// Blue to grey to yellow, each step lighter than the one before: it reads the same without red or green cones, and in
// grey.
const mapInks: readonly (readonly [number, number, number])[] = [
  [8, 8, 40],
  [14, 20, 84],
  [24, 40, 128],
  [38, 66, 160],
  [62, 94, 176],
  [94, 120, 172],
  [132, 132, 132],
  [160, 150, 96],
  [186, 168, 70],
  [208, 188, 60],
  [226, 208, 76],
  [240, 228, 128],
  [252, 250, 214],
]
/** The map's inks as CSS colours, for its legend. */
export const mapColours: readonly string[] = mapInks.map(([r, g, b]) => `rgb(${r} ${g} ${b})`)

const packed = (r: number, g: number, b: number): number => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0
const mapPacked = mapInks.map(([r, g, b]) => packed(r, g, b))
const dark = packed(16, 16, 16)
const light = packed(233, 226, 207)

/**
 * Paints an overlay over rows `from` up to `to` of canvas pixels.
 * @param shown the display signal, codes of 0..1; `tapped` the signal of the overlay's tap, where it has one
 * @param topCode the code of the brightest the display shows
 */
export function paintOverlay(
  { id, zebra }: OverlaySettings,
  shown: Frame,
  tapped: Uint16Array | null,
  canvas: Uint32Array,
  w: LumaWeights,
  topCode: number,
  from: number,
  to: number,
): void {
  const { width, data } = shown
  // Stripes of eight pixels, half dark and half light: seen on any picture. Overlays of one kind lean one way.
  const hatch = (p: number, lean: 1 | -1): void => {
    canvas[p] = (((p % width) + lean * Math.floor(p / width) + 8 * 4096) & 7) < 4 ? dark : light
  }
  const each = (test: (i: number) => boolean, lean: 1 | -1 = 1): void => {
    for (let p = from * width, i = p * 3; p < to * width; p++, i += 3) if (test(i)) hatch(p, lean)
  }
  const lumaAt = (i: number): number => (w.red * data[i] + w.green * data[i + 1] + w.blue * data[i + 2]) / 65535
  const grey = (of: (i: number) => number): void => {
    for (let p = from * width, i = p * 3; p < to * width; p++, i += 3) {
      const v = Math.round(of(i) * 255)
      canvas[p] = packed(v, v, v)
    }
  }
  switch (id) {
    case 'clipped':
      return each((i) => data[i] >= topCode || data[i + 1] >= topCode || data[i + 2] >= topCode)
    case 'crushed':
      return each((i) => (data[i] | data[i + 1] | data[i + 2]) === 0, -1)
    case 'outOfRange':
      return eachOutOfRange(shown, w, from, to, (p) => hatch(p, 1))
    case 'outOfGamut': {
      if (!tapped) return
      // As the loss ledger counts: a component under zero by more than rounding, beside others with light.
      return each(
        (i) =>
          Math.min(tapped[i], tapped[i + 1], tapped[i + 2]) < gamutTapZero - 2 &&
          Math.max(tapped[i], tapped[i + 1], tapped[i + 2]) > gamutTapZero,
        -1,
      )
    }
    case 'hotEnds':
      return each((i) => {
        const l = lumaAt(i)
        const chroma = 2 * Math.hypot((data[i + 2] / 65535 - l) / w.cbDivisor, (data[i] / 65535 - l) / w.crDivisor)
        return (l < 0.12 && chroma > 0.2 * Math.min(1, 0.3 + l * 6)) || (l > 0.85 && chroma > 0.2)
      })
    case 'zebra':
      return each((i) => {
        const l = lumaAt(i)
        return l >= zebra.low && l <= zebra.high
      })
    case 'stops':
      return tapped ? paintStops(tapped, canvas, from * width, to * width) : undefined
    case 'red':
      return grey((i) => data[i] / 65535)
    case 'green':
      return grey((i) => data[i + 1] / 65535)
    case 'blue':
      return grey((i) => data[i + 2] / 65535)
    case 'luma':
      return grey(lumaAt)
  }
}

const lightOfLog = Float32Array.from({ length: 4096 }, (_, i) => fromWorkingLog((i + 0.5) / 4096))

function paintStops(tapped: Uint16Array, canvas: Uint32Array, from: number, to: number): void {
  const [wr, wg, wb] = workingLuminance
  const lowest = mapStops[0]
  for (let p = from, i = p * 3; p < to; p++, i += 3) {
    const luminance =
      wr * lightOfLog[tapped[i] >> 4] + wg * lightOfLog[tapped[i + 1] >> 4] + wb * lightOfLog[tapped[i + 2] >> 4]
    const stop = luminance > 0 ? Math.round(Math.log2(luminance / middleGrey)) : lowest
    canvas[p] = mapPacked[Math.min(mapPacked.length - 1, Math.max(0, stop - lowest))]
  }
}
