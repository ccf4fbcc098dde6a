// The guess, judged over the demo scenes.
import { judge, scores, type JudgeOptions } from '../guess/judge'
import { judgePhotographs, photographScores, wholeEffort, type JudgedTake } from '../guess/judge-photographs'
import { photographsAreThere } from '../guess/photographs'
import { smoke } from './effort'
import { median } from './median'

export function measureGuess(framings: number): readonly string[] {
  const plain: JudgeOptions = {
    framings,
    from: 'clip',
    troubled: 0,
    tagged: true,
    ...(smoke ? { scenes: ['potter'] } : {}),
  }
  // Tried briefly, one way stands for all.
  if (smoke) return judged(plain)
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

/** The same on real photographs through real codecs, none of which it was taught with. */
export async function measureGuessOnPhotographs(): Promise<readonly string[]> {
  if (!photographsAreThere()) return ['The photographs are not installed (Debian package opencv-doc): not measured.']
  const all: JudgedTake[] = []
  const effort = smoke ? { photographs: 1, finished: 2, takesPerLog: 0, flats: 1, wrongFlags: 0 } : wholeEffort
  for await (const judgedTake of judgePhotographs(effort)) all.push(judgedTake)
  return [
    `${all.length} clips of ${effort.photographs} photographs, H.264 and HEVC of 8 and 10 bits and all-intra:`,
    ...photographScores(all)
      .filter(({ of }) => of > 0)
      .map(
        ({ name, right, of, bar }) =>
          `    ${name}: ${((100 * right) / of).toFixed(1)} % (${right} of ${of}; bar ${bar})`,
      ),
    `    a guess of three places of 480×270: ${median(all.map((j) => j.ms)).toFixed(0)} ms`,
  ]
}

const judged = (options: JudgeOptions): readonly string[] =>
  scores([...judge(options)]).map(
    ({ name, right, of }) =>
      `    ${name}: ${of === 0 ? 'none' : `${((100 * right) / of).toFixed(1)} % (${right} of ${of})`}`,
  )
