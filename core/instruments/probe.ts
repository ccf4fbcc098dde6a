// What one place in the picture is on every instrument, and which pixels make one place of an instrument's trace.
import {
  gamutById,
  lightOfSignal,
  lumaWeights,
  middleGrey,
  rgbToXyz,
  transform,
  workingLuminance,
  type Display,
} from '../colour'
import { positionsIn, sceneLight, type Chain } from '../grade'

import type { Frame } from '../image'
import { chromaticitySpan } from './chromaticity'
import { levelHigh, levelLow, vectorSpan } from './scopes'
import type { InstrumentId, InstrumentSettings } from './settings'

export interface Probe {
  /** Place as shares of the frame. */
  readonly x: number
  readonly y: number
  /** R′, G′, B′ and luma of the signal, 0..1. */
  readonly rgb: readonly [number, number, number]
  readonly luma: number
  readonly cb: number
  readonly cr: number
  /** 2 · hypot(Cb, Cr), and the direction from +Cb, anticlockwise. */
  readonly chroma: number
  readonly hueDegrees: number
  /** u′, v′; null without light. */
  readonly uv: readonly [number, number] | null
  /** Scene light before Show, in stops from middle grey; null below any light. */
  readonly stops: number | null
}

/** Reads the 3×3 pixels about a place of a picture and of its source. */
export function probeAt(
  x: number,
  y: number,
  shown: Frame,
  source: Frame,
  chain: Chain | null,
  display: Display,
): Probe {
  const px = Math.min(shown.width - 1, Math.max(0, Math.floor(x * shown.width)))
  const py = Math.min(shown.height - 1, Math.max(0, Math.floor(y * shown.height)))
  const [r, g, b] = meanAround(shown, px, py)
  const w = lumaWeights(display.lumaMatrix)
  const luma = w.red * r + w.green * g + w.blue * b
  const cb = (b - luma) / w.cbDivisor
  const cr = (r - luma) / w.crDivisor
  const [X, Y, Z] = transform(rgbToXyz(gamutById(display.gamutId)), lightOfSignal(display)(r, g, b))
  const d = X + 15 * Y + 3 * Z
  return {
    x,
    y,
    rgb: [r, g, b],
    luma,
    cb,
    cr,
    chroma: 2 * Math.hypot(cb, cr),
    hueDegrees: ((Math.atan2(cr, cb) * 180) / Math.PI + 360) % 360,
    uv: Y > 1e-5 ? [(4 * X) / d, (9 * Y) / d] : null,
    stops: chain && sceneStops(chain, source, px, py),
  }
}

function meanAround({ width, height, data, low, high }: Frame, px: number, py: number): [number, number, number] {
  const sums: [number, number, number] = [0, 0, 0]
  let n = 0
  for (let y = Math.max(0, py - 1); y <= Math.min(height - 1, py + 1); y++)
    for (let x = Math.max(0, px - 1); x <= Math.min(width - 1, px + 1); x++, n++)
      for (let c = 0; c < 3; c++) sums[c] += data[(y * width + x) * 3 + c]
  return sums.map((s) => low + ((high - low) * s) / n / 65535) as [number, number, number]
}

function sceneStops(chain: Chain, source: Frame, px: number, py: number): number | null {
  const [r, g, b] = sceneLight(
    chain,
    'look',
    Float64Array.from(meanAround(source, px, py)),
    positionsIn(chain, source, 1, py * source.width + px, 1),
  )
  const luminance = workingLuminance[0] * r + workingLuminance[1] * g + workingLuminance[2] * b
  return luminance > 1e-6 ? Math.log2(luminance / middleGrey) : null
}

/** Where a probe lies on an instrument, in shares of its plot from the lower left; several for several traces. */
export function placesOn(
  id: InstrumentId,
  probe: Probe,
  { waveform, parade, histogram, vectorZoom }: InstrumentSettings,
): readonly { readonly x: number; readonly y: number }[] {
  const level = (signal: number): number => Math.min(1, Math.max(0, (signal - levelLow) / (levelHigh - levelLow)))
  const { rgb, luma, cb, cr } = probe
  const chroma = [luma, cb + 0.5, cr + 0.5]
  switch (id) {
    case 'waveform':
      return { rgb, chroma, luma: [luma] }[waveform].map((v) => ({ x: probe.x, y: level(v) }))
    case 'parade':
      return (parade === 'rgb' ? rgb : chroma).map((v, i) => ({
        x: (i + probe.x) / 3,
        y: level(v),
      }))
    case 'histogram':
      return (histogram === 'rgb' ? rgb : [luma]).map((v) => ({ x: level(v), y: 0 }))
    case 'vectorscope':
      return [{ x: 0.5 + (cb * vectorZoom) / (2 * vectorSpan), y: 0.5 + (cr * vectorZoom) / (2 * vectorSpan) }]
    case 'chromaticity':
      return probe.uv ? [{ x: probe.uv[0] / chromaticitySpan, y: probe.uv[1] / chromaticitySpan }] : []
  }
}

/**
 * One byte per pixel: 1 where the pixel lies within `reach` (a share of the plot) of a place on an instrument's trace.
 */
export function pixelsAt(
  id: InstrumentId,
  x: number,
  y: number,
  shown: Frame,
  display: Display,
  settings: InstrumentSettings,
  reach = 0.018,
): Uint8Array {
  const { width, height, data } = shown
  const out = new Uint8Array(width * height)
  const w = lumaWeights(display.lumaMatrix)
  const third = Math.min(2, Math.floor(x * 3))
  const at = id === 'parade' ? x * 3 - third : x
  const level = levelLow + y * (levelHigh - levelLow)
  const along = levelLow + x * (levelHigh - levelLow)
  const tolerance = reach * (levelHigh - levelLow)
  const cb0 = ((x - 0.5) * 2 * vectorSpan) / settings.vectorZoom
  const cr0 = ((y - 0.5) * 2 * vectorSpan) / settings.vectorZoom
  const radius = ((reach * 2 * vectorSpan) / settings.vectorZoom) ** 2
  const light = lightOfSignal(display)
  const [m0, m1, m2, m3, m4, m5, m6, m7, m8] = rgbToXyz(gamutById(display.gamutId))
  const near = (v: number, wanted: number): boolean => Math.abs(v - wanted) <= tolerance
  const matches = (r: number, g: number, b: number): boolean => {
    const luma = w.red * r + w.green * g + w.blue * b
    const cb = (b - luma) / w.cbDivisor
    const cr = (r - luma) / w.crDivisor
    switch (id) {
      case 'waveform':
        return settings.waveform === 'rgb' ? near(r, level) || near(g, level) || near(b, level) : near(luma, level)
      case 'parade':
        return near(settings.parade === 'rgb' ? [r, g, b][third] : [luma, cb + 0.5, cr + 0.5][third], level)
      case 'histogram':
        return settings.histogram === 'rgb' ? near(r, along) || near(g, along) || near(b, along) : near(luma, along)
      case 'vectorscope':
        return (cb - cb0) ** 2 + (cr - cr0) ** 2 <= radius
      case 'chromaticity': {
        const [lr, lg, lb] = light(r, g, b)
        const X = m0 * lr + m1 * lg + m2 * lb
        const Y = m3 * lr + m4 * lg + m5 * lb
        const d = X + 15 * Y + 3 * (m6 * lr + m7 * lg + m8 * lb)
        return (
          Y > 1e-4 &&
          ((4 * X) / d - x * chromaticitySpan) ** 2 + ((9 * Y) / d - y * chromaticitySpan) ** 2 <=
            (reach * chromaticitySpan) ** 2
        )
      }
    }
  }
  const across = id === 'waveform' || id === 'parade' ? Math.max(2, Math.round(width * reach)) : width
  const centre = Math.floor(at * width)
  const x0 = across === width ? 0 : Math.max(0, centre - across)
  const x1 = across === width ? width : Math.min(width, centre + across + 1)
  for (let py = 0; py < height; py++)
    for (let px = x0; px < x1; px++) {
      const i = (py * width + px) * 3
      if (matches(data[i] / 65535, data[i + 1] / 65535, data[i + 2] / 65535)) out[py * width + px] = 1
    }
  return out
}
