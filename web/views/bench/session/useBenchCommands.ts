// The Bench's keys: what each of them does.
import { closeLast } from '../../../composables/useEscape'
import { stations } from '@core/grade'
import { clamp01 } from '@core/numbers'
import { useAims } from '../../../stores/aims'
import { useBalance } from '../../../stores/balance'
import { useGrade } from '../../../stores/grade'
import { usePlacing } from '../../../stores/placing'
import { useView } from '../../../stores/view'
import { nextZoom } from '../picture/useZoom'
import { useBenchKeys } from '../useBenchKeys'
import type { Bench } from './bench'
import { nextFilling, nextSurround } from './next-choice'

const panStep = 0.05

export function useBenchCommands(bench: Bench): void {
  const aims = useAims()
  const balance = useBalance()
  const grade = useGrade()
  const placing = usePlacing()
  const view = useView()
  const { playback, marking } = bench
  useBenchKeys({
    stepFrames: (count) => bench.go(view.frame + count),
    toLeadFrame: () => bench.go(bench.shot.value?.leadFrame ?? 0),
    makeLead: () => void bench.makeLead(),
    nextMoment: bench.nextMoment,
    togglePlay: playback.toggle,
    shuttle: playback.shuttle,
    beginRange: () => playback.setRange('first', view.frame),
    endRange: () => playback.setRange('last', view.frame),
    toggleLoop: playback.toggleLoop,
    holdAsShot: bench.holdAsShot,
    toggleAsShot: () => {
      view.asShot = !view.asShot
    },
    nextSurround: () => {
      view.surround = nextSurround(view.surround)
    },
    nextZoom: () => {
      view.zoom = nextZoom(view.zoom)
    },
    fit: () => {
      view.zoom = { level: 0, x: 0.5, y: 0.5 }
    },
    pan: (dx, dy) => {
      const { level, x, y } = view.zoom
      view.zoom = { level, x: clamp01(x + dx * panStep), y: clamp01(y + dy * panStep) }
    },
    toggleGamma: () => {
      view.otherGamma = !view.otherGamma
    },
    nextInstrument: () => {
      view.filling = nextFilling(view.slots, view.filling)
    },
    // While choices stand open, their numbers take them.
    openStation: (id) => {
      const at = stations.findIndex((s) => s.id === id)
      if (balance.choices[at]) balance.take(at)
      else bench.openStation(id)
    },
    nextOverlay: marking.nextOverlay,
    togglePart: marking.togglePart,
    toggleReference: () => void bench.toggleReference('this'),
    nextTap: () => {
      view.tap = view.tap === 'finish' ? view.station : 'finish'
    },
    bypass: marking.bypassByKey,
    undo: () => void grade.undo(),
    redo: () => void grade.redo(),
    neighbour: bench.neighbour,
    toggleKeys: () => {
      view.showKeys = !view.showKeys
    },
    closeLast: () => void closeLast(),
    balance: bench.balancing.ask,
    nextCompare: bench.comparing.next,
    keepAims: () => {
      if (placing.recipe) placing.keep()
      else if (balance.open) balance.take()
      else aims.keep()
    },
  })
}
