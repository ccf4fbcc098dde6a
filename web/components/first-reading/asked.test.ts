import type { ShotSummary } from '@contracts/responses'
import { askedLike, isAsked, text } from './asked'

const shot = (change: Record<string, unknown> = {}): ShotSummary =>
  ({
    id: 'a',
    likeness: 'x',
    staysAsItLooks: false,
    read: { encodingId: 'gamma-2.4' },
    guess: { opening: { encodingId: 'gamma-2.4', asks: true, because: 'as it looks', offers: [] } },
    ...change,
  }) as unknown as ShotSummary

test('it is asked until somebody reads it by something, or says that it stays', () => {
  expect(isAsked(shot())).toBe(true)
  expect(isAsked(shot({ read: { encodingId: 'log-420-95' } }))).toBe(false)
  expect(isAsked(shot({ staysAsItLooks: true }))).toBe(false)
  expect(isAsked(shot({ guess: null }))).toBe(false)
  expect(isAsked(shot({ guess: { opening: { encodingId: 'gamma-2.4', asks: false, offers: [] } } }))).toBe(false)
})

test('others like it are those of such files that it is asked of too', () => {
  const all = [
    shot(),
    shot({ id: 'b' }),
    shot({ id: 'c', likeness: 'y' }),
    shot({ id: 'd', staysAsItLooks: true }),
    shot({ id: 'e', read: { encodingId: 'hlg' } }),
  ]
  expect(askedLike(all[0]!, all)).toEqual(['b'])
  expect(askedLike(shot({ likeness: '' }), all)).toEqual([])
})

test('counts are said in words', () => {
  expect(text.usual(5, 'Log 420/95')).toBe('Five like it are read as Log 420/95')
  expect(text.usual(1, 'Log 420/95')).toBe('One like it is read as Log 420/95')
  expect(text.usual(12, 'HLG')).toBe('12 like it are read as HLG')
})
