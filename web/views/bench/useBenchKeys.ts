// Binds the Bench's commands to their keys.
import { useEventListener } from '@vueuse/core'
import type { CommandId } from '../../commands/declared'
import { keyOf } from '../../commands/key-names'
import { arrowStep } from '../../composables/arrowStep'
import { useKeys } from '../../stores/keys'
import { usePalette } from '../../stores/palette'

type HeldId = 'hold-as-shot' | 'bypass'
export interface BenchActions {
  readonly run: Readonly<Record<Exclude<CommandId, HeldId>, () => void>>
  /** True while the key is held. */
  readonly hold: Readonly<Record<HeldId, (held: boolean) => void>>
  /** To the right and down, in steps. */
  readonly pan: (x: number, y: number) => void
}

export const isHeld = (id: CommandId): id is HeldId => id === 'hold-as-shot' || id === 'bypass'

/** True when a key press belongs to a field or a control and not to the Bench. */
function isTyping({ target }: KeyboardEvent): boolean {
  return (
    target instanceof HTMLInputElement ||
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLElement && (target.isContentEditable || target.getAttribute('role') === 'combobox'))
  )
}
/** Space and Enter on a button press the button. */
const pressesButton = (event: KeyboardEvent): boolean =>
  (event.key === ' ' || event.key === 'Enter') &&
  event.target instanceof HTMLElement &&
  event.target.closest('button, a, [role="button"], [role="tab"], [role="switch"]') !== null

export function useBenchKeys({ run, hold, pan }: BenchActions): void {
  const keys = useKeys()
  const palette = usePalette()
  /** What is held down, by the key's own name: it ends when that key is let go, whatever else is pressed. */
  const held = new Map<string, HeldId>()
  function letGo(key: string): void {
    const id = held.get(key.toLowerCase())
    if (!id) return
    held.delete(key.toLowerCase())
    hold[id](false)
  }

  useEventListener(window, 'keydown', (event) => {
    if (palette.open) return
    if (event.altKey && !event.ctrlKey && event.key.startsWith('Arrow') && !isTyping(event)) {
      event.preventDefault()
      const { dx, dy } = arrowStep(event)
      pan(dx, dy)
      return
    }
    const key = keyOf(event)
    const id = key === null ? undefined : keys.commandOf(key)
    if (!id || key === null) return
    // In a field only what no field needs acts.
    if (isTyping(event) && !/^(Ctrl|Alt)\+/.test(key)) return
    if (pressesButton(event)) return
    event.preventDefault()
    if (!isHeld(id)) return run[id]()
    if (event.repeat) return
    held.set(event.key.toLowerCase(), id)
    hold[id](true)
  })
  useEventListener(window, 'keyup', (event) => letGo(event.key))
  useEventListener(window, 'blur', () => {
    for (const key of [...held.keys()]) letGo(key)
  })
}
