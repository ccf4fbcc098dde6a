import type { PictureFacts } from '../../workers/messages'
import { effectOf, figuresOf, percent, readingsOf } from './figures'

const facts: PictureFacts = {
  black: 0.011,
  low: 0.05,
  middle: 0.367,
  high: 0.85,
  white: 0.975,
  clippedShare: 0.00001,
  crushedShare: 0,
  channelPercentile1: [0, 0, 0],
  means: [0.389, 0.362, 0.343],
  chroma: 0.043,
  hueDegrees: 131.6,
}

test('percent has one decimal, a true minus sign and no negative zero', () => {
  expect(percent(0.123)).toBe('12.3')
  expect(percent(-0.123)).toBe('−12.3')
  expect(percent(-0.00001, true)).toBe('0.0')
  expect(percent(0.02, true)).toBe('+2.0')
})

test('the number comes first and has its unit', () => {
  expect(figuresOf(facts)).toEqual({
    waveform: '1.1 – 97.5 %',
    parade: 'R +2.7 B −1.9',
    vectorscope: '8.6 % · 132°',
    histogram: 'middle 36.7 %',
    chromaticity: '8.6 % · 132°',
  })
  expect(figuresOf(null)).toEqual({ waveform: '', parade: '', vectorscope: '', histogram: '', chromaticity: '' })
  expect(effectOf('exposureStops', facts)).toBe('middle 36.7 %')
  expect(effectOf('exposureStops', null)).toBeUndefined()
  expect(effectOf('nothing', facts)).toBeUndefined()
})

test('a clipped pixel never shows as none', () => {
  const value = (id: string): string | undefined => readingsOf(facts).find((r) => r.id === id)?.value
  expect(value('clipped')).toBe('< 0.01')
  expect(value('crushed')).toBe('0.00')
})
