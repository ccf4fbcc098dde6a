import { createPinia, setActivePinia } from 'pinia'
import { defaultGrade } from '@core/grade'
import type { PicturedAnswer } from '../workers/aims-worker'
import { useBalance } from './balance'

beforeEach(() => setActivePinia(createPinia()))

const answerOf = (...ids: readonly ('evidence' | 'least' | 'brighter' | 'darker')[]): PicturedAnswer => ({
  note: '',
  choices: ids.map((id) => ({
    id,
    name: id,
    grade: defaultGrade('log-420-95'),
    moves: [],
    sentence: '',
    sure: false,
    picture: { width: 1, height: 1, rgba: new Uint8ClampedArray(4) },
  })),
})

test('the choice that is looked at stays so once the clip was looked at, unless it was withdrawn', () => {
  const store = useBalance()
  store.begin(12)
  expect([store.asking, store.checking]).toEqual([true, false])
  store.show(answerOf('evidence', 'brighter', 'darker'), true)
  expect([store.asking, store.checking, store.at]).toEqual([false, true, 0])
  store.look(2)
  store.show(answerOf('evidence', 'darker'), false)
  expect([store.checking, store.at]).toEqual([false, 1])
  store.show(answerOf('least'), false)
  expect(store.at).toBe(0)
})

test('closed or failed, nothing is being looked at any more', () => {
  const store = useBalance()
  store.begin(12)
  store.show(answerOf('evidence'), true)
  store.fail('The frame could not be read.')
  expect([store.checking, store.fault]).toEqual([false, 'The frame could not be read.'])
  store.close()
  expect([store.checking, store.open]).toEqual([false, false])
})
