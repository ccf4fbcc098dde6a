// The guess, judged over the demo scenes.
import { judge, scores, type Judged } from '../guess/judge'

export async function measureGuess(framings: number): Promise<string[]> {
  const all: Judged[] = []
  for await (const judged of judge(framings)) all.push(judged)
  return scores(all).map(({ name, right, of }) => `${name}: ${of === 0 ? 'none' : `${((100 * right) / of).toFixed(1)} % (${right} of ${of})`}`)
}
