// The guess, judged over the demo scenes.
import { judge, scores, type Judged } from '../guess/judge'

export async function measureGuess(framings: number): Promise<string[]> {
  const lines: string[] = []
  for (const tagged of [false, true]) {
    const all: Judged[] = []
    for await (const judged of judge(framings, tagged)) all.push(judged)
    lines.push(tagged ? 'with the tags that HLG and PQ files carry' : `without any tags (${all.length} takes)`)
    for (const { name, right, of } of tagged ? scores(all).slice(0, 2) : scores(all)) lines.push(`    ${name}: ${of === 0 ? 'none' : `${((100 * right) / of).toFixed(1)} % (${right} of ${of})`}`)
  }
  return lines
}
