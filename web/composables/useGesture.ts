// A hand at work, from a press to its end. It ends with its pointer, its component or its page, whichever is first, so
// that saving never waits for a component that is gone.
import { inject, onScopeDispose, type InjectionKey } from 'vue'

export interface Gesture {
  /** Ends it; a second time does nothing. */
  readonly end: () => void
}

/** Who is told of gestures: on the Bench, the grade. */
export interface GestureHost {
  readonly beginGesture: () => Gesture
}

export const gestureHostKey: InjectionKey<GestureHost> = Symbol('gesture host')
const nobody: GestureHost = { beginGesture: () => ({ end: () => undefined }) }

/** One gesture at a time. Pass the pointer event that begins it: it ends with that pointer at the latest. */
export function useGesture(): { readonly begin: (event?: PointerEvent) => void; readonly end: () => void } {
  const host = inject(gestureHostKey, nobody)
  let gesture: Gesture | null = null
  let pointerId: number | null = null

  const ofPointer = (event: Event): void => {
    if (!(event instanceof PointerEvent) || pointerId === null || event.pointerId === pointerId) end()
  }
  const endings = ['pointerup', 'pointercancel'] as const
  function begin(event?: PointerEvent): void {
    end()
    gesture = host.beginGesture()
    pointerId = event?.pointerId ?? null
    // After the component's own listeners, which may still have something to say.
    for (const type of endings) window.addEventListener(type, ofPointer)
    window.addEventListener('pagehide', end)
  }
  function end(): void {
    for (const type of endings) window.removeEventListener(type, ofPointer)
    window.removeEventListener('pagehide', end)
    const ended = gesture
    gesture = null
    ended?.end()
  }
  onScopeDispose(end)
  return { begin, end }
}
