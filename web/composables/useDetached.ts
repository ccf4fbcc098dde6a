// Instruments and the picture in windows of their own: the Bench sends what it measured and shows, a window says what
// it is for. Both sides of one channel.
import { useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import type { StationId } from '@core/grade'
import { instrumentIds, type InstrumentId, type InstrumentSettings, type TraceImage } from '@core/instruments'
import type { Graticules } from '../stores/kept-settings'
import { tabId } from './tabId'

/** What a window can be for. */
export type DetachedId = InstrumentId | 'picture'

/** What windows of instruments are sent with every measured picture. */
export interface DetachedMeasure {
  readonly kind: 'measure'
  readonly traces: Readonly<Partial<Record<InstrumentId, TraceImage>>>
  readonly figures: Readonly<Record<InstrumentId, string>>
  readonly settings: InstrumentSettings
  readonly graticules: Graticules
  readonly displayId: string
  readonly tap: StationId
  readonly shot: string
}
/** What windows of the picture are sent with every picture that is shown. */
export interface DetachedPicture {
  readonly kind: 'picture'
  readonly image: TraceImage
  /** Width by height as it is seen. */
  readonly aspect: number
  /** Raises the signal to this power for the look alone. */
  readonly exponent: number
  readonly shot: string
  readonly label: string
}
/** A window says this once a second: what it is for. */
interface Alive {
  readonly kind: 'alive'
  readonly window: string
  readonly id: DetachedId
}
interface Sent {
  readonly measure: DetachedMeasure
  readonly picture: DetachedPicture
}
type Message = Sent[keyof Sent] | Alive

const aliveMs = 1000
const goneMs = 2600

/** A Bench and its windows speak on a channel of their own: two Benches do not feed one window. */
const channelOf = (bench: string): BroadcastChannel => new BroadcastChannel(`pale-instruments-${bench}`)

/** The Bench's side: its name in the windows' addresses, which instruments stand in windows, and sending to them. */
export function useDetachedSender(
  measure: () => DetachedMeasure | null,
  picture: () => DetachedPicture | null,
): {
  readonly bench: Readonly<Ref<string>>
  readonly detached: ComputedRef<readonly InstrumentId[]>
} {
  const bench = ref('')
  const windows = shallowRef<ReadonlyMap<string, { readonly id: DetachedId; readonly at: number }>>(new Map())
  let channel: BroadcastChannel | null = null
  let gone = false
  void tabId().then((id) => {
    if (gone) return
    bench.value = id
    channel = channelOf(id)
    channel.onmessage = ({ data }: MessageEvent<Message | null>) => {
      // Whatever else may speak on the channel: only windows that name what they are for count.
      if (data?.kind === 'alive' && (data.id === 'picture' || instrumentIds.includes(data.id)))
        windows.value = new Map([...windows.value, [data.window, { id: data.id, at: Date.now() }]])
    }
  })
  useIntervalFn(() => {
    const living = [...windows.value].filter(([, { at }]) => Date.now() - at < goneMs)
    if (living.length !== windows.value.size) windows.value = new Map(living)
  }, aliveMs)
  const ids = computed(() => [...new Set([...windows.value.values()].map((w) => w.id))].sort().join(' '))
  const open = computed(() => (ids.value === '' ? [] : (ids.value.split(' ') as DetachedId[])))
  const detached = computed(() => open.value.filter((id) => id !== 'picture'))
  const send = (wanted: () => boolean, message: () => Message | null): void => {
    watch(
      () => (wanted() ? message() : null),
      (now) => {
        if (now) channel?.postMessage(now)
      },
    )
  }
  send(() => detached.value.length > 0, measure)
  send(() => open.value.includes('picture'), picture)
  onScopeDispose(() => {
    gone = true
    channel?.close()
  })
  return { bench, detached }
}

/** A window's side: the newest that its Bench sent of what it is for. */
export function useDetachedReceiver<K extends keyof Sent>(
  bench: string,
  kind: K,
  id: () => DetachedId,
): Readonly<Ref<Sent[K] | null>> {
  const channel = channelOf(bench)
  const window_ = Math.random().toString(36).slice(2)
  const last: Ref<Sent[K] | null> = shallowRef(null)
  channel.onmessage = ({ data }: MessageEvent<Message | null>) => {
    if (data?.kind === kind) last.value = data as Sent[K]
  }
  const say = (): void => channel.postMessage({ kind: 'alive', window: window_, id: id() } satisfies Alive)
  useIntervalFn(say, aliveMs, { immediateCallback: true })
  onScopeDispose(() => channel.close())
  return last
}
