// Binds the Bench's keys.
import { arrowStep } from '../../composables/arrowStep'
import { useEventListener } from '@vueuse/core'
import { stations, type StationId } from '@core/grade'
import { isTyping } from './keys'

export interface BenchActions {
  readonly stepFrames: (count: number) => void
  readonly toLeadFrame: () => void
  readonly makeLead: () => void
  readonly nextMoment: () => void
  readonly togglePlay: () => void
  readonly shuttle: (direction: -1 | 1) => void
  readonly beginRange: () => void
  readonly endRange: () => void
  readonly toggleLoop: () => void
  readonly holdAsShot: (held: boolean) => void
  readonly toggleAsShot: () => void
  readonly nextSurround: () => void
  readonly nextZoom: () => void
  readonly fit: () => void
  /** To the right and down, in steps. */
  readonly pan: (x: number, y: number) => void
  readonly toggleGamma: () => void
  readonly nextInstrument: () => void
  readonly openStation: (id: StationId) => void
  readonly nextOverlay: () => void
  readonly togglePart: () => void
  readonly balance: () => void
  readonly nextCompare: () => void
  readonly keepAims: () => void
  readonly toggleReference: () => void
  readonly nextTap: () => void
  readonly bypass: (on: boolean) => void
  readonly undo: () => void
  readonly redo: () => void
  readonly neighbour: (direction: -1 | 1) => void
  readonly toggleKeys: () => void
  readonly closeLast: () => void
}

export function useBenchKeys(actions: BenchActions): void {
  const plain: Record<string, () => void> = {
    s: () => actions.stepFrames(-1),
    d: () => actions.stepFrames(1),
    S: () => actions.stepFrames(-12),
    D: () => actions.stepFrames(12),
    e: actions.toLeadFrame,
    E: actions.makeLead,
    r: actions.nextMoment,
    ' ': actions.togglePlay,
    x: () => actions.shuttle(-1),
    c: () => actions.shuttle(1),
    z: actions.beginRange,
    v: actions.endRange,
    g: actions.toggleLoop,
    a: actions.toggleAsShot,
    w: actions.nextSurround,
    o: actions.nextZoom,
    O: actions.fit,
    W: actions.toggleGamma,
    f: actions.nextInstrument,
    t: actions.nextOverlay,
    b: actions.togglePart,
    n: actions.balance,
    m: actions.nextCompare,
    Enter: actions.keepAims,
    y: actions.toggleReference,
    h: actions.nextTap,
    '[': () => actions.neighbour(-1),
    ']': () => actions.neighbour(1),
    '?': actions.toggleKeys,
    Escape: actions.closeLast,
    ...Object.fromEntries(stations.map(({ id }, i) => [String(i + 1), () => actions.openStation(id)])),
  }

  useEventListener(window, 'keydown', (event) => {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault()
      ;(event.shiftKey ? actions.redo : actions.undo)()
      return
    }
    if (event.altKey && !event.ctrlKey && event.key.startsWith('Arrow') && !isTyping(event)) {
      event.preventDefault()
      const { dx, dy } = arrowStep(event)
      actions.pan(dx, dy)
      return
    }
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return
    if (event.key === 'q') {
      if (!event.repeat) actions.holdAsShot(true)
      return
    }
    if (event.key === '`') {
      if (!event.repeat) actions.bypass(true)
      return
    }
    // Space and Enter on a button press the button.
    if (
      (event.key === ' ' || event.key === 'Enter') &&
      event.target instanceof HTMLElement &&
      event.target.closest('button, a, [role="button"], [role="tab"], [role="switch"]')
    )
      return
    const action = plain[event.key]
    if (!action) return
    event.preventDefault()
    action()
  })
  useEventListener(window, 'keyup', (event) => {
    if (event.key === 'q') actions.holdAsShot(false)
    if (event.key === '`') actions.bypass(false)
  })
  useEventListener(window, 'blur', () => {
    actions.holdAsShot(false)
    actions.bypass(false)
  })
}
