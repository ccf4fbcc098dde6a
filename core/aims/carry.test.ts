import { defaultGrade, setParameter, setStep } from '../grade'
import { withOwnBalance } from './carry'

const grade = defaultGrade('log-420-95')
const balance = ({ steps }: typeof grade): object | undefined => steps.find((s) => s.kind === 'white-balance')

test('a shot keeps the white balance that was set on it, and all else is as carried', () => {
  const carried = setParameter(setParameter(grade, 'exposure', 'exposureStops', 0.5), 'white-balance', 'tint', -2)
  const own = setStep(
    setParameter(setParameter(grade, 'exposure', 'exposureStops', 1), 'white-balance', 'tint', 9),
    'white-balance',
    { strength: 0.5 },
  )
  const kept = withOwnBalance(carried, own)
  expect(balance(kept)).toEqual(balance(own))
  expect(kept.steps.filter((s) => s.kind !== 'white-balance')).toEqual(
    carried.steps.filter((s) => s.kind !== 'white-balance'),
  )
})

test('one that was never set gives way', () => {
  const carried = setParameter(grade, 'white-balance', 'temperatureMired', 20)
  expect(withOwnBalance(carried, setParameter(grade, 'exposure', 'exposureStops', 1))).toBe(carried)
})
