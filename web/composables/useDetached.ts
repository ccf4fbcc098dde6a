// Instruments in windows of their own: the Bench sends what it measured, a window says what it shows. Both sides of one
// channel.
import { useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import type { StationId } from '@core/grade'
import { instrumentIds, type InstrumentId, type InstrumentSettings, type TraceImage } from '@core/instruments'
import type { Graticules } from '../stores/kept-settings'
import { tabId } from './tabId'

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

const aliveMs = 1000
const goneMs = 2600

/** A Bench and its windows speak on a channel of their own: two Benches do not feed one window. */
const channelOf = (bench: string): BroadcastChannel => new BroadcastChannel(`pale-instruments-${bench}`)

/** The Bench's side: its name in the windows' addresses, which instruments stand in windows, and sending to them. */
export function useDetachedSender(picture: () => DetachedPicture | null): {
  readonly bench: Readonly<Ref<string>>
  readonly detached: ComputedRef<readonly InstrumentId[]>
} {
  const bench = ref('')
  const windows = shallowRef<ReadonlyMap<string, { readonly id: InstrumentId; readonly at: number }>>(new Map())
  let channel: BroadcastChannel | null = null
  let gone = false
  void tabId().then((id) => {
    if (gone) return
    bench.value = id
    channel = channelOf(id)
    channel.onmessage = ({ data }: MessageEvent<Message | null>) => {
      // Whatever else may speak on the channel: only windows that name an instrument count.
      if (data?.kind === 'alive' && instrumentIds.includes(data.id))
        windows.value = new Map([...windows.value, [data.window, { id: data.id, at: Date.now() }]])
    }
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
      if (now) channel?.postMessage(now)
    },
  )
  onScopeDispose(() => {
    gone = true
    channel?.close()
  })
  return { bench, detached }
}

/** A window's side: the newest picture of its Bench. */
export function useDetachedReceiver(bench: string, id: () => InstrumentId): ShallowRef<DetachedPicture | null> {
  const channel = channelOf(bench)
  const window_ = Math.random().toString(36).slice(2)
  const last = shallowRef<DetachedPicture | null>(null)
  channel.onmessage = ({ data }: MessageEvent<Message | null>) => {
    if (data?.kind === 'picture') last.value = data
  }
  const say = (): void => channel.postMessage({ kind: 'alive', window: window_, id: id() } satisfies Alive)
  useIntervalFn(say, aliveMs, { immediateCallback: true })
  onScopeDispose(() => channel.close())
  return last
}
