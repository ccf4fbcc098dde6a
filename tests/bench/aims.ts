// The solver: four aims at once on demo frames, 960×540, one core; a fresh frame, and again with another value, as a
// dragged handle asks.
import { solveAims, type Aim } from '@core/aims'
import { areaIn, demoFrame, none, truthOf } from '../aims/faults'
import { rounds } from './effort'
import { median, quantile } from './median'

export async function measureAimSolver(): Promise<string[]> {
  const fresh: number[] = []
  const dragged: number[] = []
  let met = 0
  let all = 0
  for (const id of ['potter', 'glaze-shelf', 'yard-cloud', 'courtyard', 'market-phone'].slice(0, rounds(5))) {
    const { source, grade } = await demoFrame(id)
    const card = areaIn(truthOf(id).patches.leadFrame['greyCard']!)
    const aims = (white: number): readonly Aim[] => [
      { id: 'black', name: 'Black', rank: 2, want: { kind: 'level', share: 0.001, value: 0.04 } },
      { id: 'middle', name: 'Middle', rank: 2, want: { kind: 'level', share: 0.5, value: 0.42 } },
      { id: 'white', name: 'White', rank: 2, want: { kind: 'level', share: 0.999, value: white } },
      { id: 'card', name: 'Card', rank: 1, want: { kind: 'neutral', areas: [card] } },
    ]
    for (let n = 0; n < rounds(9, 2); n++) {
      const start = performance.now()
      const { met: so } = solveAims({ grade, lut: none, frame: source, aims: aims(0.9 + n / 200), locked: new Set() })
      ;(n === 0 ? fresh : dragged).push(performance.now() - start)
      all++
      if (so) met++
    }
  }
  return [
    `median ${median(dragged).toFixed(0)} ms, 95th percentile ${quantile(dragged, 0.95).toFixed(0)} ` +
      `ms (bound 60); on a frame that is new to the solver ${median(fresh).toFixed(0)} ms; all four met ` +
      `in ${met} of ${all}`,
  ]
}
