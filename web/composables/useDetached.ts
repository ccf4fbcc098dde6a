// Instruments in windows of their own: the Bench sends what it measured, a window says what it shows. Both sides of one
// channel.
import { useBroadcastChannel, useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, shallowRef, watch, type ComputedRef } from 'vue'
import type { StationId } from '@core/grade'
import { instrumentIds, type InstrumentId, type InstrumentSettings, type TraceImage } from '@core/instruments'
import type { Graticules } from '../stores/kept-settings'

/** What a window is sent with every measured picture. */
export interface DetachedPicture {
  readonly kind: 'picture'
  readonly traces: Readonly<Partial<Record<InstrumentId, TraceImage>>>
  readonly figures: Readonly<Record<InstrumentId, string>>
  readonly settings: InstrumentSettings
  readonly graticules: Graticules
  readonly displayId: string
  readonly tap: StationId
  readonly shot: string
}
/** A window says this once a second: which instrument it shows. */
interface Alive {
  readonly kind: 'alive'
  readonly window: string
  readonly id: InstrumentId
}
type Message = DetachedPicture | Alive

const channelName = 'pale-instruments'
const aliveMs = 1000
const goneMs = 2600

/** The Bench's side: which instruments stand in windows, and sending to them. */
export function useDetachedSender(picture: () => DetachedPicture | null): {
  readonly detached: ComputedRef<readonly InstrumentId[]>
} {
  const { data, post } = useBroadcastChannel<Message, Message>({ name: channelName })
  const windows = shallowRef<ReadonlyMap<string, { readonly id: InstrumentId; readonly at: number }>>(new Map())
  watch(data, (message) => {
    // Whatever else may speak on the channel: only windows that name an instrument count.
    if (message?.kind === 'alive' && instrumentIds.includes(message.id))
      windows.value = new Map([...windows.value, [message.window, { id: message.id, at: Date.now() }]])
  })
  useIntervalFn(() => {
    const living = [...windows.value].filter(([, { at }]) => Date.now() - at < goneMs)
    if (living.length !== windows.value.size) windows.value = new Map(living)
  }, aliveMs)
  const ids = computed(() => [...new Set([...windows.value.values()].map((w) => w.id))].sort().join(' '))
  const detached = computed(() => (ids.value === '' ? [] : (ids.value.split(' ') as InstrumentId[])))
  watch(
    () => (detached.value.length > 0 ? picture() : null),
    (now) => {
      if (now) post(now)
    },
  )
  return { detached }
}

/** A window's side: the newest picture. */
export function useDetachedReceiver(id: () => InstrumentId): ComputedRef<DetachedPicture | null> {
  const { data, post } = useBroadcastChannel<Message, Message>({ name: channelName })
  const window_ = Math.random().toString(36).slice(2)
  const last = shallowRef<DetachedPicture | null>(null)
  const say = (): void => post({ kind: 'alive', window: window_, id: id() })
  useIntervalFn(say, aliveMs, { immediateCallback: true })
  const stop = watch(data, (message) => {
    if (message?.kind === 'picture') last.value = message
  })
  onScopeDispose(stop)
  return computed(() => last.value)
}
