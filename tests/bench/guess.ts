// The guess, judged over the demo scenes.
import { judge, scores, type JudgeOptions } from '../guess/judge'
import { smoke } from './effort'

export function measureGuess(framings: number): readonly string[] {
  const plain: JudgeOptions = {
    framings,
    from: 'clip',
    troubled: 0,
    tagged: true,
    ...(smoke ? { scenes: ['potter'] } : {}),
  }
  return [
    'from three places of each clip, HLG and PQ tagged:',
    ...judged(plain),
    'the same, nothing tagged:',
    ...judged({ ...plain, tagged: false }),
    'from three places, noise spoilt in every take:',
    ...judged({ ...plain, troubled: 1 }),
    'from one frame:',
    ...judged({ ...plain, from: 'still' }),
  ]
}

const judged = (options: JudgeOptions): readonly string[] =>
  scores([...judge(options)]).map(
    ({ name, right, of }) =>
      `    ${name}: ${of === 0 ? 'none' : `${((100 * right) / of).toFixed(1)} % (${right} of ${of})`}`,
  )
