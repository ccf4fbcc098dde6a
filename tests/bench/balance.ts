// Balance for me against the truth: demo plates and photographs that nothing was taught with, through five encodings.
import { balanceScores, judgeBalance } from '../balance/judge'
import { photographsAreThere } from '../guess/photographs'
import { smoke } from './effort'

export function measureBalance(): readonly string[] {
  if (!photographsAreThere()) return ['The photographs are not installed (Debian package opencv-doc): not measured.']
  const count = smoke ? 4 : 300
  return [
    `${count} takes, exposure ±2 stops, white ±60 mired and ±12 Duv, one in four untouched, half with a card:`,
    ...balanceScores([...judgeBalance({ side: 'judging', count, seed: 5 })]).map(
      ({ name, value, bar }) => `    ${name}: ${value}${bar === '' ? '' : ` (bar ${bar})`}`,
    ),
  ]
}
