// Pictures that the server has to make first, a few at a time: a browser opens six connections to a server, and with
// all of them waiting for pictures nothing else would come through.
import { onScopeDispose, shallowRef, watch, type ShallowRef } from 'vue'

const most = 2
const retryMs = [1000, 3000, 9000] as const

let underWay = 0
const waiting: (() => void)[] = []
function goOn(): void {
  while (underWay < most) {
    const next = waiting.shift()
    if (!next) return
    underWay++
    next()
  }
}

export interface Turn {
  /** The address to be loaded now: the last one whose turn came. */
  readonly address: ShallowRef<string | undefined>
  /** To be told when that has come, or could not be had. */
  readonly ended: (well: boolean) => void
}

/** @param wanted the address that is wanted; null while nothing is to be seen of it */
export function useTurn(wanted: () => string | null): Turn {
  const address = shallowRef<string>()
  let place: (() => void) | null = null
  let busy = false
  let failures = 0
  let again: ReturnType<typeof setTimeout> | undefined

  function leave(): void {
    clearTimeout(again)
    if (place) waiting.splice(waiting.indexOf(place), 1)
    place = null
    if (!busy) return
    busy = false
    underWay--
    goOn()
  }
  function ask(): void {
    const next = wanted()
    if (next === null) return
    place = () => {
      place = null
      busy = true
      // The same address again is loaded again only where it has changed meanwhile.
      if (address.value === next) address.value = undefined
      queueMicrotask(() => (address.value = next))
    }
    waiting.push(place)
    goOn()
  }
  function ended(well: boolean): void {
    if (!busy) return
    leave()
    const pause = retryMs[failures]
    failures = well ? 0 : failures + 1
    if (!well && pause !== undefined) again = setTimeout(ask, pause)
  }

  watch(
    wanted,
    () => {
      leave()
      failures = 0
      ask()
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    leave()
    address.value = undefined
  })
  return { address, ended }
}
