import { displayById } from '@core/colour'
import { levelHigh, type FrameTrace } from '@core/instruments'
import { standardById } from '@core/readings'
import { defaultLayout, parseInstrumentSettings, parseLayout, parseSlots } from '../../stores/kept-settings'
import { scaleLines } from './instruments/scale-lines'
import { nextArrangement, nextMeridian } from './layout/arranged'
import { bandOf, linesOf, pathOf, yOf } from './meridian/meridian-paths'
import { clipRange, worstOf } from './readings/clip-extremes'

describe('scales', () => {
  test('percent, legal codes, light of the display, and stops before Show', () => {
    expect(scaleLines('percent', 'bt709-2.4', 'finish').map((l) => l.label)).toEqual(['0', '25', '50', '75', '100'])
    expect(scaleLines('codes', 'bt709-2.4', 'finish').map((l) => l.label)).toEqual(['64', '283', '502', '721', '940'])
    const light = scaleLines('light', 'pq-1000', 'finish')
    const { eotf, whiteNits } = displayById('pq-1000')
    expect(light.map((l) => l.label)).toContain('203')
    for (const { at, label } of light) expect(eotf.decode(at) * whiteNits).toBeCloseTo(Number(label), 3)
    expect(scaleLines('light', 'bt709-2.4', 'finish').at(-1)).toMatchObject({ at: 1, label: '100' })
    const stops = scaleLines('percent', 'bt709-2.4', 'level')
    expect(stops.find((l) => l.label === '0')?.at).toBeCloseTo(0.4136, 3)
    expect(stops.at(-1)?.label).toBe('+8')
  })
  test.each(['bt709-2.4', 'p3-dci', 'pq-600', 'pq-4000', 'hlg'])(
    'lines of light on %s rise and stay on the scale',
    (id) => {
      const places = scaleLines('light', id, 'finish').map((l) => l.at)
      expect(places).toEqual([...places].sort((a, b) => a - b))
      expect(Math.max(...places)).toBeLessThan(levelHigh)
    },
  )
})

test('what was stored in the browser is only taken where it makes sense', () => {
  for (const nonsense of [null, 7, 'x', [], { vectorZoom: 3, waveform: 'all', gain: 1e9 }, { gain: Number.NaN }])
    expect(parseInstrumentSettings(nonsense)).toEqual(parseInstrumentSettings({}))
  expect(parseInstrumentSettings({ vectorZoom: 4, parade: 'ycbcr', gain: 2 })).toMatchObject({
    vectorZoom: 4,
    parade: 'ycbcr',
    gain: 2,
  })
  expect(parseSlots(['histogram', 'constructor', 7])).toEqual(['histogram', 'parade', 'vectorscope'])
})

test('of a stored layout only what makes sense is taken', () => {
  for (const nonsense of [null, 7, [], { arrangement: 'all' }, { pictureShare: 2 }, { pictureShare: NaN, meridian: 3 }])
    expect(parseLayout(nonsense)).toEqual(defaultLayout)
  const whole = { arrangement: 'instruments', meridian: 'tall', pictureShare: 0.4 } as const
  expect(parseLayout(JSON.parse(JSON.stringify(whole)))).toEqual(whole)
})

test('for a large picture the Meridian folds away, and unfolds after it; the divider goes back', () => {
  const picture = nextArrangement({ ...defaultLayout, pictureShare: 0.3 })
  expect(picture).toEqual({ arrangement: 'picture', meridian: 'folded', pictureShare: null })
  const instruments = nextArrangement(picture)
  expect(instruments).toEqual({ arrangement: 'instruments', meridian: 'usual', pictureShare: null })
  expect(nextArrangement(nextMeridian(instruments))).toEqual({ ...defaultLayout, meridian: 'tall' })
  expect([1, 2, 3].reduce(nextMeridian, defaultLayout)).toEqual(defaultLayout)
})

describe('the clip', () => {
  const trace = (low: number, clipped: number): FrameTrace => ({
    low,
    middle: 0.4,
    high: 0.9,
    balance: [0.4, 0.4, 0.4],
    clipped,
    crushed: 0,
  })
  const traces = [trace(0.03, 0), undefined, trace(0.08, 0.2), trace(0.01, 0)]
  test('its extremes by frame, gaps left out', () => {
    expect(clipRange('black', traces, 100)).toEqual({
      low: { value: 0.01, frame: 103 },
      high: { value: 0.08, frame: 102 },
    })
    expect(clipRange('noise', traces, 100)).toBeNull()
    expect(clipRange('black', [undefined], 0)).toBeNull()
  })
  test('the worst is the end further outside; none when all lie within', () => {
    const { black, clipped } = standardById('broad-day').targets
    expect(worstOf(clipRange('black', traces, 100)!, black)).toEqual({ value: 0.08, frame: 102 })
    expect(worstOf(clipRange('clipped', traces, 100)!, clipped)?.frame).toBe(102)
    expect(worstOf(clipRange('black', [trace(0.03, 0)], 0)!, black)).toBeNull()
    expect(worstOf(clipRange('middle', traces, 0)!, undefined)).toBeNull()
  })
})

test('the Meridian is drawn from left to right, higher levels higher, and never off its plane', () => {
  expect(yOf(0)).toBeGreaterThan(yOf(0.5))
  expect([yOf(-9), yOf(9)]).toEqual([100, 0])
  const lines = linesOf({
    asShot: [0.1, 0.2],
    stations: Array.from({ length: 8 }, (_, i) => ({
      station: 'read' as const,
      levels: [0.1, 0.2 + i / 20],
      loss: { clipped: 0, crushed: 0, outOfGamut: 0 },
    })),
  })
  expect(lines.map((l) => l.length)).toEqual([9, 9])
  expect(pathOf(lines[1]!)).toMatch(new RegExp(`L 800 ${yOf(0.55)}$`))
  expect(bandOf(lines[0]!, lines[1]!).match(/Z/g)).toHaveLength(2)
})
