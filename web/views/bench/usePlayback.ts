// Playing a shot on the Bench: start, stop, speed and direction, the looped range.
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import type { BenchRenderer, Wanted } from '../../composables/useBenchRenderer'

export interface Playback {
  readonly speed: Ref<number>
  readonly loop: Ref<boolean>
  /** The range that is played: the shot, or less. */
  readonly range: ComputedRef<{ readonly first: number; readonly last: number }>
  readonly toggle: () => void
  readonly stop: () => void
  /** One notch faster in a direction; the other direction slows down first. */
  readonly shuttle: (direction: -1 | 1) => void
  readonly setRange: (end: 'first' | 'last', frame: number) => void
  readonly toggleLoop: () => void
}

const notches = [-8, -4, -2, -1, -0.5, 0.5, 1, 2, 4, 8] as const

export function usePlayback(
  renderer: BenchRenderer,
  wanted: () => Wanted | null,
  whole: () => { first: number; last: number; framesPerSecond: number },
  onFrame: (frame: number) => void,
): Playback {
  const speed = ref(1)
  const loop = ref(false)
  const chosen = ref<{ first: number | null; last: number | null }>({ first: null, last: null })
  const range = computed(() => {
    const { first, last } = whole()
    return { first: Math.max(first, chosen.value.first ?? first), last: Math.min(last, chosen.value.last ?? last) }
  })
  watch(
    () => [whole().first, whole().last, wanted()?.medium.hash].join(),
    () => {
      chosen.value = { first: null, last: null }
    },
  )

  function start(): void {
    const now = wanted()
    if (!now?.medium.proxy) return
    const { first, last } = range.value
    const { framesPerSecond } = whole()
    const inside = now.frameIndex >= first && now.frameIndex <= last
    // From the end of the range it starts over.
    const spent = speed.value > 0 ? now.frameIndex >= last : now.frameIndex <= first
    const start = speed.value > 0 ? first : last
    const from = inside && !spent ? now.frameIndex : start
    renderer.play(now, { from, first, last, speed: speed.value, loop: loop.value, framesPerSecond }, onFrame)
  }
  function stop(): void {
    if (renderer.playing.value) renderer.pause()
  }
  function toggle(): void {
    if (renderer.playing.value) return stop()
    speed.value = 1
    start()
  }
  function shuttle(direction: -1 | 1): void {
    const at = notches.indexOf(speed.value as (typeof notches)[number])
    const next = renderer.playing.value ? notches[Math.min(notches.length - 1, Math.max(0, at + direction))] : direction
    speed.value = next ?? direction
    start()
  }
  function setRange(end: 'first' | 'last', frame: number): void {
    const other = end === 'first' ? chosen.value.last : chosen.value.first
    const crossed = other !== null && (end === 'first' ? frame > other : frame < other)
    chosen.value =
      end === 'first'
        ? { first: frame, last: crossed ? null : chosen.value.last }
        : { first: crossed ? null : chosen.value.first, last: frame }
    loop.value = true
    if (renderer.playing.value) start()
  }
  function toggleLoop(): void {
    loop.value = !loop.value
    if (renderer.playing.value) start()
  }
  return { speed, loop, range, toggle, stop, shuttle, setRange, toggleLoop }
}
