// Binds the Bench's keys.
import { useEventListener } from '@vueuse/core'
import { stations, type StationId } from '@core/index'
import { isTyping } from './keys'

export interface BenchActions {
  readonly stepFrames: (count: number) => void
  readonly toLeadFrame: () => void
  readonly holdAsShot: (held: boolean) => void
  readonly toggleAsShot: () => void
  readonly nextSurround: () => void
  readonly nextInstrument: () => void
  readonly openStation: (id: StationId) => void
  readonly undo: () => void
  readonly redo: () => void
  readonly neighbour: (direction: -1 | 1) => void
  readonly toggleKeys: () => void
  readonly closeKeys: () => void
}

export function useBenchKeys(actions: BenchActions): void {
  const plain: Record<string, () => void> = {
    s: () => actions.stepFrames(-1),
    d: () => actions.stepFrames(1),
    S: () => actions.stepFrames(-12),
    D: () => actions.stepFrames(12),
    e: actions.toLeadFrame,
    a: actions.toggleAsShot,
    w: actions.nextSurround,
    f: actions.nextInstrument,
    '[': () => actions.neighbour(-1),
    ']': () => actions.neighbour(1),
    '?': actions.toggleKeys,
    Escape: actions.closeKeys,
    ...Object.fromEntries(stations.map(({ id }, i) => [String(i + 1), () => actions.openStation(id)])),
  }

  useEventListener(window, 'keydown', (event) => {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault()
      ;(event.shiftKey ? actions.redo : actions.undo)()
      return
    }
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return
    if (event.key === 'q') {
      if (!event.repeat) actions.holdAsShot(true)
      return
    }
    const action = plain[event.key]
    if (!action) return
    event.preventDefault()
    action()
  })
  useEventListener(window, 'keyup', (event) => { if (event.key === 'q') actions.holdAsShot(false) })
  useEventListener(window, 'blur', () => actions.holdAsShot(false))
}
