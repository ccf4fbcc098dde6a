// Counts as pictures: brightness on a log scale, so that single pixels show beside large areas. A reference lies under
// all, the whole picture's trace in grey under that of a part.
import { lumaWeights } from '../colour'
import { vectorSpan, type ScopeCounts } from './scopes'
import type { InstrumentId, InstrumentSettings } from './settings'

export interface TraceImage {
  readonly width: number
  readonly height: number
  readonly rgba: Uint8ClampedArray
}
type Ink = readonly [number, number, number]

/** What was counted of a picture: the scopes' counts, and the chromaticity diagram's where it was asked for. */
export interface Counted {
  readonly scopes: ScopeCounts
  readonly chromaticity: Uint32Array | null
}

/** What one instrument's picture is made of. */
export interface Layers {
  readonly whole: Counted
  /** A part of the picture, where the instruments are limited to one. */
  readonly part: Counted | null
  /** A held frame or another shot. */
  readonly reference: Counted | null
}

// Trace inks: luma in pale ink; the channels in their own colours, lightened so that each is legible on the dark
// ground.
const pale: Ink = [240, 240, 236]
const redInk: Ink = [255, 104, 92]
const greenInk: Ink = [112, 232, 120]
const blueInk: Ink = [122, 150, 255]
const cbInk: Ink = [150, 160, 255]
const crInk: Ink = [255, 150, 140]
const greyInk: Ink = [120, 120, 120]
const referenceInk: Ink = [176, 164, 132]
export const chromaticityCells = 220

/** Counts beyond this are as bright as it. */
const mostCounts = 1024
const logOfCount = Float64Array.from({ length: mostCounts }, (_, n) => Math.log1p(n))

/**
 * From a count to a packed pixel (ABGR, as little-endian canvas memory holds it): one pixel is already visible, `full`
 * pixels are full brightness.
 */
function brightness(full: number, [red, green, blue]: Ink, gain: number): Uint32Array {
  const scale = Math.log1p(full)
  const colour = (blue << 16) | (green << 8) | red
  const table = new Uint32Array(mostCounts)
  for (let n = 1; n < mostCounts; n++)
    table[n] = (Math.round(255 * Math.min(1, gain * (0.16 + (0.84 * logOfCount[n]) / scale))) << 24) | colour
  return table
}

interface Target {
  readonly pixels: Uint32Array
  readonly width: number
  readonly height: number
}

function blank(width: number, height: number): { image: TraceImage; target: Target } {
  const rgba = new Uint8ClampedArray(width * height * 4)
  return { image: { width, height, rgba }, target: { pixels: new Uint32Array(rgba.buffer), width, height } }
}

/** Paints counts that lie column by column, lowest level first. With `add`, inks mix where traces cross. */
function paintColumns(
  counts: Uint32Array,
  columns: number,
  table: Uint32Array,
  { pixels, width, height }: Target,
  atX: number,
  add = false,
): void {
  const bottom = (height - 1) * width + atX
  const last = mostCounts - 1
  // The image starts blank and most counts are zero: only the others are written.
  for (let x = 0, i = 0; x < columns; x++)
    for (let at = bottom + x, end = i + height; i < end; i++, at -= width) {
      const n = counts[i]
      if (n === 0) continue
      const ink = table[n < last ? n : last]
      pixels[at] = add && pixels[at] !== 0 ? mixed(pixels[at], ink) : ink
    }
}

/** The brighter of two inks, channel by channel, after their strengths. */
function mixed(a: number, b: number): number {
  const sa = (a >>> 24) / 255
  const sb = (b >>> 24) / 255
  const channel = (shift: number): number => Math.max(((a >>> shift) & 255) * sa, ((b >>> shift) & 255) * sb)
  const red = channel(0)
  const green = channel(8)
  const blue = channel(16)
  const most = Math.max(red, green, blue, 1)
  const alpha = Math.max(sa, sb)
  const fit = (v: number): number => Math.min(255, Math.round(v / Math.max(alpha, most / 255)))
  return ((Math.round(alpha * 255) << 24) | (fit(blue) << 16) | (fit(green) << 8) | fit(red)) >>> 0
}

/** Paints counts that lie row by row, lowest row first. `colour` gives a cell its own ink. */
function paintRows(
  counts: Uint32Array,
  cells: number,
  table: Uint32Array,
  { pixels, width, height }: Target,
  edge: boolean,
  colour?: (column: number, row: number) => number,
): void {
  const first = edge ? 0 : 1
  const last = edge ? cells : cells - 1
  for (let row = first; row < last; row++) {
    const line = (height - 1 - row) * width
    for (let x = first; x < last; x++) {
      const n = counts[row * cells + x]
      if (n === 0) continue
      const ink = table[n < mostCounts - 1 ? n : mostCounts - 1]
      pixels[line + x] = colour ? ((ink & 0xff000000) | colour(x, row)) >>> 0 : ink
    }
  }
}

type Layer = { readonly counted: Counted; readonly ink: Ink | null }
/** From the lowest to the highest; `ink` is one colour for all of a layer. */
function layersOf({ whole, part, reference }: Layers): readonly Layer[] {
  return [
    ...(reference ? [{ counted: reference, ink: referenceInk }] : []),
    { counted: whole, ink: part ? greyInk : null },
    ...(part ? [{ counted: part, ink: null }] : []),
  ]
}

/** The picture of one instrument. */
export function instrumentImage(id: InstrumentId, layers: Layers, settings: InstrumentSettings): TraceImage {
  switch (id) {
    case 'waveform':
      return waveformImage(layers, settings)
    case 'parade':
      return paradeImage(layers, settings)
    case 'vectorscope':
      return vectorImage(layers, settings)
    case 'histogram':
      return histogramImage(layers, settings)
    case 'chromaticity':
      return chromaticityImage(layers, settings)
  }
}

const fullOf = ({ pixels, sizes }: ScopeCounts): number => Math.max(8, pixels / sizes.columns / 12)

function waveformImage(layers: Layers, { waveform: mode, gain }: InstrumentSettings): TraceImage {
  const { columns, levels } = layers.whole.scopes.sizes
  const { image, target } = blank(columns, levels)
  for (const {
    counted: { scopes },
    ink,
  } of layersOf(layers)) {
    const full = fullOf(scopes)
    if (mode === 'rgb')
      for (const [trace, own] of [
        ['red', redInk],
        ['green', greenInk],
        ['blue', blueInk],
      ] as const)
        paintColumns(scopes[trace], columns, brightness(full, ink ?? own, gain), target, 0, ink === null)
    else paintColumns(scopes.waveform, columns, brightness(full, ink ?? pale, gain), target, 0)
    if (mode === 'chroma' && scopes.cb.length > 0)
      for (const [trace, own] of [
        ['cb', cbInk],
        ['cr', crInk],
      ] as const)
        paintColumns(scopes[trace], columns, brightness(full, ink ?? own, gain), target, 0, ink === null)
  }
  return image
}

function paradeImage(layers: Layers, { parade: mode, gain }: InstrumentSettings): TraceImage {
  const { columns, levels } = layers.whole.scopes.sizes
  const { image, target } = blank(columns * 3, levels)
  for (const {
    counted: { scopes },
    ink,
  } of layersOf(layers)) {
    const parts =
      mode === 'ycbcr' && scopes.cb.length > 0
        ? ([
            ['waveform', pale],
            ['cb', cbInk],
            ['cr', crInk],
          ] as const)
        : ([
            ['red', redInk],
            ['green', greenInk],
            ['blue', blueInk],
          ] as const)
    parts.forEach(([trace, own], i) =>
      paintColumns(scopes[trace], columns, brightness(fullOf(scopes), ink ?? own, gain), target, columns * i),
    )
  }
  return image
}

function vectorImage(layers: Layers, { vectorColoured, vectorZoom, gain }: InstrumentSettings): TraceImage {
  const cells = layers.whole.scopes.sizes.vectorCells
  const { image, target } = blank(cells, cells)
  for (const {
    counted: { scopes },
    ink,
  } of layersOf(layers)) {
    const zoomed = vectorZoom > 1 && scopes.zoomed.length > 0
    const colour = vectorColoured && ink === null ? hueInk(cells, zoomed ? vectorZoom : 1) : undefined
    // Zoomed, what lies outside is counted in the outermost cells: it is not drawn there.
    paintRows(
      zoomed ? scopes.zoomed : scopes.vector,
      cells,
      brightness(Math.max(8, scopes.pixels / 2000), ink ?? pale, gain),
      target,
      !zoomed,
      colour,
    )
  }
  return image
}

/** The colour a cell stands for, at a luma at which all hues can be told. */
function hueInk(cells: number, zoom: number): (column: number, row: number) => number {
  const w = lumaWeights('bt709')
  const span = (2 * vectorSpan) / cells / zoom
  return (column, row) => {
    const cb = (column + 0.5 - cells / 2) * span
    const cr = (row + 0.5 - cells / 2) * span
    // Strong enough to be told even near the middle.
    const gain = 0.32 / Math.max(0.05, Math.hypot(cb, cr))
    const luma = 0.62
    const r = luma + cr * gain * w.crDivisor
    const b = luma + cb * gain * w.cbDivisor
    const g = (luma - w.red * r - w.blue * b) / w.green
    const code = (v: number): number => Math.round(255 * Math.min(1, Math.max(0, v)))
    return (code(b) << 16) | (code(g) << 8) | code(r)
  }
}

/** Pixels per level: the traces summed across, so that every pixel counts. */
export function levelCounts(trace: Uint32Array, { columns, levels }: ScopeCounts['sizes']): Uint32Array {
  const out = new Uint32Array(levels)
  for (let x = 0, i = 0; x < columns; x++) for (let level = 0; level < levels; level++, i++) out[level] += trace[i]
  return out
}

const histogramHeight = 120

function histogramImage(layers: Layers, { histogram: mode, histogramScale, gain }: InstrumentSettings): TraceImage {
  const { sizes } = layers.whole.scopes
  const { image, target } = blank(sizes.levels, histogramHeight)
  for (const {
    counted: { scopes },
    ink,
  } of layersOf(layers)) {
    const parts =
      mode === 'rgb'
        ? ([
            ['red', redInk],
            ['green', greenInk],
            ['blue', blueInk],
          ] as const)
        : ([['waveform', pale]] as const)
    for (const [trace, own] of parts) {
      const counts = levelCounts(scopes[trace], scopes.sizes)
      const table = brightness(1, ink ?? own, 0.75)
      // The ends may hold so much that nothing else would be seen: the scale follows the rest.
      const most = counts.subarray(1, -1).reduce((a, n) => Math.max(a, n), 1)
      for (let x = 0; x < sizes.levels; x++) {
        const n = counts[x]
        if (n === 0) continue
        const share = histogramScale === 'log' ? Math.log1p(n) / Math.log1p(most) : n / most
        const top = Math.min(histogramHeight, Math.max(1, Math.round(share * gain * histogramHeight)))
        for (let row = 0; row < top; row++) {
          const at = (histogramHeight - 1 - row) * sizes.levels + x
          target.pixels[at] = ink === null && target.pixels[at] !== 0 ? mixed(target.pixels[at], table[1]) : table[1]
        }
      }
    }
  }
  return image
}

function chromaticityImage(layers: Layers, { gain }: InstrumentSettings): TraceImage {
  const { image, target } = blank(chromaticityCells, chromaticityCells)
  for (const {
    counted: { chromaticity, scopes },
    ink,
  } of layersOf(layers))
    if (chromaticity)
      paintRows(
        chromaticity,
        chromaticityCells,
        brightness(Math.max(8, scopes.pixels / 2000), ink ?? pale, gain),
        target,
        true,
      )
  return image
}
