import { frameOf, randomFrom } from '../../tests/support/pictures'
import { displayById, lumaWeights } from '../colour'
import {
  buildChain,
  compile,
  compileTap,
  defaultGrade,
  execute,
  gamutTapZero,
  restSize,
  setParameter,
  setStep,
  stations,
  type GradeDocument,
} from '../grade'
import { countChromaticity, uvPrime } from './chromaticity'
import { lostPixels } from './losses'
import { measureMeridian, measurePartMeridian, mergesOf } from './meridian'
import { paintOverlay, type OverlayId } from './overlays'
import { pixelsAt, placesOn, probeAt } from './probe'
import { countScopes } from './scopes'
import { partMask } from './selection'
import { defaultInstruments, type InstrumentId } from './settings'
import { chromaticityCells, instrumentImage, levelCounts, type Layers } from './trace-image'

const sizes = { columns: 60, levels: 220, vectorCells: 240 } as const
const none = (): undefined => undefined

describe('75 % colour bars land in their targets, within half a degree and 1 %', () => {
  const bars = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
    [1, 1, 0],
    [0, 1, 1],
    [1, 0, 1],
  ] as const
  test.each([
    ['bt709', 'bt709-2.4'],
    ['bt2020', 'pq-1000'],
  ] as const)('%s', (matrix, displayId) => {
    const w = lumaWeights(matrix)
    const display = displayById(displayId)
    expect(display.lumaMatrix).toBe(matrix)
    for (const bar of bars) {
      const rgb = bar.map((v) => v * 0.75) as [number, number, number]
      // Where the standard puts the target.
      const luma = w.red * rgb[0] + w.green * rgb[1] + w.blue * rgb[2]
      const cb = (rgb[2] - luma) / w.cbDivisor
      const cr = (rgb[0] - luma) / w.crDivisor
      const frame = frameOf(40, 20, () => rgb)
      const probe = probeAt(0.5, 0.5, frame, frame, null, display)
      expect(Math.abs(probe.hueDegrees - (((Math.atan2(cr, cb) * 180) / Math.PI + 360) % 360))).toBeLessThan(0.5)
      expect(Math.abs(probe.chroma - 2 * Math.hypot(cb, cr))).toBeLessThan(0.01)
      // And where the trace shows it: all pixels in one cell, that cell's middle there, at ×1 and zoomed.
      const counts = countScopes(frame, w, sizes)
      const cell = counts.vector.findIndex((n) => n === 800)
      const at = placesOn('vectorscope', probe, defaultInstruments)[0]!
      expect(cell).toBeGreaterThan(0)
      expect(Math.abs(at.x * sizes.vectorCells - 0.5 - (cell % sizes.vectorCells))).toBeLessThan(0.52)
      expect(Math.abs(at.y * sizes.vectorCells - 0.5 - Math.floor(cell / sizes.vectorCells))).toBeLessThan(0.52)
    }
  })
})

const random = randomFrom(12)
const noise = frameOf(120, 68, () => [random(), random(), random()])
const display = displayById('bt709-2.4')
const weights = lumaWeights('bt709')

test('a histogram holds every pixel, channel by channel', () => {
  const counts = countScopes(noise, weights, sizes)
  for (const trace of ['waveform', 'red', 'green', 'blue'] as const)
    expect(levelCounts(counts[trace], sizes).reduce((a, b) => a + b, 0)).toBe(120 * 68)
})

test("neutral light lies at the display's white on the diagram, primaries at theirs; black is not counted", () => {
  const cellOf = ([u, v]: readonly [number, number]): number =>
    Math.floor((v / 0.65) * 220) * 220 + Math.floor((u / 0.65) * 220)
  const at = (rgb: readonly [number, number, number]): number =>
    countChromaticity(
      frameOf(8, 8, () => rgb),
      display,
      220,
      0,
      8,
    ).indexOf(64)
  expect(at([0.5, 0.5, 0.5])).toBe(cellOf(uvPrime({ x: 0.3127, y: 0.329 })))
  expect(at([0.8, 0, 0])).toBe(cellOf(uvPrime({ x: 0.64, y: 0.33 })))
  expect(at([0, 0, 0.8])).toBe(cellOf(uvPrime({ x: 0.15, y: 0.06 })))
  expect(at([0, 0, 0])).toBe(-1)
})

test('a part: a box is exact, an ellipse has its area, two halves of rows make the whole', () => {
  const box = partMask({ kind: 'box', left: 0.25, top: 0.5, right: 0.75, bottom: 1 }, noise)
  expect(box.reduce((a, b) => a + b, 0)).toBe(60 * 34)
  const ellipse = { kind: 'ellipse', left: 0.1, top: 0.2, right: 0.9, bottom: 0.8 } as const
  const whole = partMask(ellipse, noise)
  expect(Math.abs(whole.reduce((a, b) => a + b, 0) / (Math.PI * 48 * 20.4) - 1)).toBeLessThan(0.01)
  const upper = partMask(ellipse, noise, 0, 30)
  const lower = partMask(ellipse, noise, 30, 68)
  expect(upper.map((v, i) => v | lower[i]!)).toEqual(whole)
  const counts = countScopes(noise, weights, sizes, 0, 68, 65535, { mask: whole })
  expect(counts.pixels).toBe(whole.reduce((a, b) => a + b, 0))
})

describe('a place in the picture and a place on an instrument find each other', () => {
  const picture = frameOf(120, 68, (x, y) => [
    0.2 + (0.6 * x) / 120,
    0.3 + (0.3 * y) / 68,
    0.9 - (0.4 * x) / 120 - (0.3 * y) / 68,
  ])
  test.each(['waveform', 'parade', 'vectorscope', 'histogram', 'chromaticity'] as const)('%s', (id: InstrumentId) => {
    for (const [x, y] of [
      [0.2, 0.3],
      [0.7, 0.6],
      [0.5, 0.9],
    ] as const) {
      const probe = probeAt(x, y, picture, picture, null, display)
      for (const place of placesOn(id, probe, defaultInstruments)) {
        const lit = pixelsAt(id, place.x, place.y, picture, display, defaultInstruments)
        expect(lit[Math.floor(y * 68) * 120 + Math.floor(x * 120)]).toBe(1)
        expect(lit.reduce((a, b) => a + b, 0)).toBeLessThan(120 * 68 * 0.35)
      }
    }
  })

  test('stops count from the grey of the scene, before Show', () => {
    const grade = defaultGrade('log-420-95')
    const chain = buildChain(grade, none)
    const grey = 420 / 1023
    const frame = frameOf(9, 9, () => [grey, grey, grey])
    expect(Math.abs(probeAt(0.5, 0.5, frame, frame, chain, display).stops!)).toBeLessThan(0.02)
    const up = buildChain(setParameter(grade, 'exposure', 'exposureStops', 1.5), none)
    expect(probeAt(0.5, 0.5, frame, frame, up, display).stops!).toBeCloseTo(1.5, 1)
  })
})

describe('taps', () => {
  const grade: GradeDocument = setParameter(
    setParameter(
      setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 0.7),
      'contrast',
      'contrast',
      1.3,
    ),
    'saturation',
    'saturation',
    1.2,
  )
  // Neutral: luma of the tap is weighed in its own signal, the Meridian's in light.
  const frame = frameOf(64, 36, (x, y) => {
    const v = 0.2 + (0.4 * x) / 64 + (0.1 * y) / 36
    return [v, v, v]
  })
  const meridian = measureMeridian(buildChain(grade, none), frame, 64 * 36 * 3)

  test.each(stations.map((s) => s.id))('at %s the instruments see what the Meridian draws', (station) => {
    const tap = compileTap(grade, none, frame, restSize, station)!
    const counts = countScopes(execute(tap, frame), weights, { ...sizes, levels: 440 })
    const drawn = meridian.stations.find((s) => s.station === station)!.levels[3]!
    let below = 0
    const levels = levelCounts(counts.waveform, { ...sizes, levels: 440 })
    const middle = levels.findIndex((n) => (below += n) >= 64 * 18)
    expect(Math.abs(-0.05 + (middle / 440) * 1.1 - drawn)).toBeLessThan(0.005)
  })

  test('at Finish it is the picture, bit by bit', () => {
    const moved = {
      ...grade,
      steps: grade.steps.map((s) => (s.kind === 'contrast' ? { ...s, side: 'display' as const } : s)),
    }
    for (const g of [grade, moved])
      expect(execute(compileTap(g, none, frame, restSize, 'finish')!, frame).data).toEqual(
        execute(compile(g, none, frame, restSize), frame).data,
      )
  })

  test('a step after Show has not acted at Show', () => {
    const moved = {
      ...grade,
      steps: grade.steps.map((s) => (s.kind === 'contrast' ? { ...s, side: 'display' as const } : s)),
    }
    const without = setStep(moved, 'contrast', { enabled: false })
    const shown = execute(compileTap(moved, none, frame, restSize, 'show')!, frame).data
    const plain = execute(compile(without, none, frame, restSize), frame).data
    let worst = 0
    for (let i = 0; i < plain.length; i++) worst = Math.max(worst, Math.abs(plain[i]! - shown[i]!))
    expect(worst).toBeLessThan(20)
  })

  test('the gamut tap tells light outside from light inside', () => {
    const plain = defaultGrade('linear', 'bt709')
    const outside = {
      ...frameOf(
        3,
        1,
        (x) =>
          [
            [0.5, 0.5, 0.5],
            [0.45, 0.6, 0.45],
            [0.4, 0.4, 0.4],
          ][x] as [number, number, number],
      ),
      low: -1,
      high: 2,
    }
    outside.data.set([Math.round(65535 * 0.3), Math.round(65535 * 0.5), Math.round(65535 * 0.32)], 3)
    const tapped = execute(compileTap(plain, none, outside, restSize, 'gamut')!, outside).data
    expect(Math.min(...tapped.subarray(0, 3))).toBeGreaterThan(gamutTapZero)
    expect(Math.min(...tapped.subarray(3, 6))).toBeLessThan(gamutTapZero - 2)
  })
})

describe('overlays', () => {
  const w = 64
  const h = 8
  const shown = frameOf(w, h, (x) => {
    if (x < 8) return [1, 0.5, 0.2]
    if (x < 16) return [0, 0, 0]
    if (x < 24) return [0.7, 0.7, 0.7]
    return [0.3, 0.4, 0.5]
  })
  const marked = (id: OverlayId, tapped: Uint16Array | null = null): Set<number> => {
    const before = Uint32Array.from({ length: w * h }, () => 0xff808080)
    const canvas = before.slice()
    paintOverlay({ id, zebra: { low: 0.65, high: 0.75 } }, shown, tapped, canvas, weights, 65535, 0, h)
    return new Set([...canvas.keys()].filter((p) => canvas[p] !== before[p]).map((p) => p % w))
  }
  test('mark what they name and nothing else', () => {
    expect([...marked('clipped')]).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
    expect([...marked('crushed')]).toEqual([8, 9, 10, 11, 12, 13, 14, 15])
    expect([...marked('zebra')]).toEqual([16, 17, 18, 19, 20, 21, 22, 23])
  })
  test('never touch what is measured', () => {
    const data = shown.data.slice()
    for (const id of ['clipped', 'hotEnds', 'outOfRange', 'luma', 'red'] as const) marked(id)
    expect(shown.data).toEqual(data)
  })
  test('the stops map is lighter with every stop', () => {
    const grade = defaultGrade('log-420-95')
    const source = frameOf(200, 1, (x) => {
      const v = 0.1 + (0.7 * x) / 200
      return [v, v, v]
    })
    const tapped = execute(compileTap(grade, none, source, restSize, 'look')!, source).data
    const canvas = new Uint32Array(200)
    paintOverlay({ id: 'stops', zebra: { low: 0, high: 1 } }, source, tapped, canvas, weights, 65535, 0, 1)
    const luma = [...canvas].map((c) => 0.2126 * (c & 255) + 0.7152 * ((c >> 8) & 255) + 0.0722 * ((c >> 16) & 255))
    for (let i = 1; i < luma.length; i++) expect(luma[i]! + 1e-9).toBeGreaterThanOrEqual(luma[i - 1]!)
    expect(new Set(canvas).size).toBeGreaterThan(9)
  })
})

test('the pixels a station lost are those the ledger counts', () => {
  const grade = setParameter(defaultGrade('linear', 'bt709'), 'exposure', 'exposureStops', 2)
  const chain = buildChain(grade, none)
  const frame = frameOf(80, 10, (x) => (x < 30 ? [0.5, 0.5, 0.5] : [0.1, 0.1, 0.1]))
  const lost = lostPixels(chain, frame, 'level', 0, 10)
  expect(lost.reduce((n, bits) => n + (bits & 1), 0)).toBe(300)
  expect(measureMeridian(chain, frame, 800 * 3).stations.find((s) => s.station === 'level')!.loss.clipped).toBeCloseTo(
    300 / 800,
    6,
  )
  expect(lostPixels(chain, frame, 'show', 0, 10).reduce((a, b) => a + b, 0)).toBe(0)
})

test('every instrument paints every mode; a part stands out from the whole, a reference lies below', () => {
  const mask = partMask({ kind: 'box', left: 0, top: 0, right: 0.5, bottom: 1 }, noise)
  const counted = (wishes: object, m?: Uint8Array) => ({
    scopes: countScopes(noise, weights, sizes, 0, 68, 65535, { ...wishes, ...(m ? { mask: m } : {}) }),
    chromaticity: countChromaticity(noise, display, chromaticityCells, 0, 68, m),
  })
  const wishes = { chroma: true, zoom: 4 }
  const whole = counted(wishes)
  const alone: Layers = { whole, part: null, reference: null }
  const parted: Layers = { whole, part: counted(wishes, mask), reference: null }
  const referred: Layers = { whole: counted(wishes, mask), part: null, reference: whole }
  const lit = (layers: Layers, id: InstrumentId, settings = defaultInstruments): number => {
    const { rgba } = instrumentImage(id, layers, settings)
    let n = 0
    for (let i = 3; i < rgba.length; i += 4) if (rgba[i]! > 0) n++
    return n
  }
  for (const id of ['waveform', 'parade', 'vectorscope', 'histogram', 'chromaticity'] as const) {
    expect(lit(alone, id)).toBeGreaterThan(50)
    const first = instrumentImage(id, alone, defaultInstruments).rgba
    expect(instrumentImage(id, parted, defaultInstruments).rgba).not.toEqual(first)
    expect(lit(referred, id)).toBeGreaterThanOrEqual(lit(alone, id))
  }
  const modes = [
    { waveform: 'rgb' },
    { waveform: 'chroma' },
    { parade: 'ycbcr' },
    { histogram: 'luma' },
    { histogramScale: 'log' },
    { vectorZoom: 4 },
    { vectorColoured: true },
  ] as const
  for (const mode of modes) {
    const of: Readonly<Record<string, InstrumentId>> = {
      waveform: 'waveform',
      parade: 'parade',
      vectorZoom: 'vectorscope',
      vectorColoured: 'vectorscope',
    }
    const id = of[Object.keys(mode)[0]!] ?? 'histogram'
    expect(instrumentImage(id, alone, { ...defaultInstruments, ...mode }).rgba).not.toEqual(
      instrumentImage(id, alone, defaultInstruments).rgba,
    )
  }
})

describe('the Meridian of a part', () => {
  const frame = frameOf(96, 54, (x) => (x < 48 ? [0.35, 0.35, 0.35] : [0.55, 0.55, 0.55]))
  const chain = buildChain(defaultGrade('log-420-95'), none)
  test('follows what lies in the part alone; an empty part has none', () => {
    const left = measurePartMeridian(
      chain,
      frame,
      partMask({ kind: 'box', left: 0, top: 0, right: 0.4, bottom: 1 }, frame),
    )!
    for (const level of left.asShot) expect(level).toBeCloseTo(0.35, 3)
    expect(measurePartMeridian(chain, frame, new Uint8Array(96 * 54))).toBeNull()
  })
})

test('lines that run together are named at the station where they do', () => {
  const level = (levels: readonly number[]) => ({ levels, loss: { clipped: 0, crushed: 0, outOfGamut: 0 } })
  const open = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7]
  const merged = [0.1, 0.2, 0.3, 0.4, 0.5, 0.69, 0.7]
  const rest = (['hue', 'regions', 'look', 'show', 'finish'] as const).map((station) => ({ station, ...level(merged) }))
  const found = mergesOf({
    asShot: open,
    stations: [
      { station: 'read', ...level(open) },
      { station: 'level', ...level(open) },
      { station: 'shape', ...level(merged) },
      ...rest,
    ],
  })
  expect(found).toEqual([{ station: 'shape', lines: [5, 6], level: 0.69 }])
})
