// The keys of the Continuity view; a field that is typed into has its own.
import { useEventListener } from '@vueuse/core'

/** @param asShot told while the key for the footage as it came is held */
export function useSceneKeys(keys: Readonly<Record<string, () => void>>, asShot: (on: boolean) => void): void {
  useEventListener(window, 'keydown', (event) => {
    const target = event.target as HTMLElement
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (target.closest('input, textarea, select, [role=slider], .el-select, .el-popper')) return
    // The pictures themselves are chosen by arrows, opened by Enter and played by Space.
    if (target.closest('button, a') && !target.closest('[data-shot]') && (event.key === 'Enter' || event.key === ' '))
      return
    if (event.key === 'b' && !event.repeat) return asShot(true)
    const act = keys[event.key]
    if (!act) return
    event.preventDefault()
    act()
  })
  useEventListener(window, 'keyup', (event) => {
    if (event.key === 'b') asShot(false)
  })
}
