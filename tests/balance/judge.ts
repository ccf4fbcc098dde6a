// Judges Balance on takes with known truth: how far the picture is from it before and after.
import { balance } from '@core/balance'
import { apart, balanceTakes, shownOf, type BalanceTake, type TakesWanted } from './takes'

export interface JudgedBalance {
  readonly take: Pick<BalanceTake, 'name' | 'touched' | 'withLamp' | 'exposureStops' | 'mired' | 'tint' | 'encodingId'>
  readonly carded: boolean
  /** Mean CIEDE2000 to the truth. */
  readonly before: number
  readonly after: number
  readonly moved: boolean
  readonly sure: boolean
  readonly words: string
  readonly ms: number
}

export function* judgeBalance(wanted: TakesWanted): Generator<JudgedBalance> {
  for (const { frame, grade, truth, card, ...take } of balanceTakes(wanted)) {
    const start = performance.now()
    const { choices, note } = balance({
      grade,
      frame,
      sourceBits: 10,
      lut: () => undefined,
      pointed: { card, subjects: [] },
    })
    const ms = performance.now() - start
    const [choice] = choices
    const before = apart(shownOf(grade, frame), truth)
    const moved = (choice?.moves.length ?? 0) > 0
    yield {
      take,
      carded: card !== null,
      before,
      after: choice && moved ? apart(shownOf(choice.grade, frame), truth) : before,
      moved,
      sure: choices.length === 1,
      words: `${note} ${choice?.moves.map((m) => m.words).join(', ') ?? ''}`,
      ms,
    }
  }
}

export interface BalanceScore {
  readonly name: string
  readonly value: string
  readonly bar: string
}

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0

/** Already as near as this to the truth there is nothing to mend. */
const wrongFrom = 2

export function balanceScores(all: readonly JudgedBalance[]): readonly BalanceScore[] {
  const share = (of: readonly JudgedBalance[], right: (j: JudgedBalance) => boolean): string =>
    of.length === 0 ? 'none' : `${((100 * of.filter(right).length) / of.length).toFixed(1)} % (of ${of.length})`
  const wrong = all.filter((j) => j.take.touched && j.before >= wrongFrom)
  const carded = wrong.filter((j) => j.carded)
  const bare = wrong.filter((j) => !j.carded)
  const moved = bare.filter((j) => j.moved)
  const untouched = all.filter((j) => !j.take.touched)
  return [
    { name: 'with a card: acted', value: share(carded, (j) => j.moved), bar: '98 %' },
    { name: 'with a card: median to truth', value: median(carded.map((j) => j.after)).toFixed(2), bar: '2.5' },
    { name: 'without: declined', value: share(bare, (j) => !j.moved), bar: 'at most 35 %' },
    { name: 'without, moved: nearer than before', value: share(moved, (j) => j.after < j.before), bar: '95 %' },
    { name: 'without, moved: median to truth', value: median(moved.map((j) => j.after)).toFixed(2), bar: '4' },
    {
      name: 'untouched: moved by 1 at most',
      value: share(untouched, (j) => Math.abs(j.after - j.before) <= 1),
      bar: '95 %',
    },
    { name: 'made worse by more than 1', value: share(all, (j) => j.after > j.before + 1), bar: 'none' },
    {
      name: 'sure and wrong by more than 10',
      value: share(all, (j) => j.sure && j.moved && j.after > 10),
      bar: 'none',
    },
    { name: 'median before, of the wrong ones', value: median(wrong.map((j) => j.before)).toFixed(2), bar: '' },
    { name: 'a proposal, 480×270', value: `${median(all.map((j) => j.ms)).toFixed(0)} ms`, bar: '400 ms' },
  ]
}
