// The lead, darkest and brightest frame of the clip through the grade as it is this moment.
import { onScopeDispose, shallowRef, watch, type ShallowRef } from 'vue'
import type { GradeDocument } from '@core/grade'
import type { TraceImage } from '@core/instruments'
import { connect, type Calls } from '../../../workers/calls'
import type { MomentFunctions } from '../../../workers/moments-worker'

export interface Moment {
  readonly id: 'lead' | 'darkest' | 'brightest'
  readonly frame: number
}
export interface LiveMoments {
  readonly images: ShallowRef<ReadonlyMap<Moment['id'], TraceImage>>
}

/** @param wanted null while nobody looks; the newest is drawn, what came between is left out */
export function useLiveMoments(
  wanted: () => {
    readonly mediaHash: string
    readonly grade: GradeDocument
    readonly moments: readonly Moment[]
  } | null,
): LiveMoments {
  const images = shallowRef<LiveMoments['images']['value']>(new Map())
  let calls: Calls<MomentFunctions> | null = null
  let drawing = false
  let again = false

  async function draw(): Promise<void> {
    if (drawing) return void (again = true)
    drawing = true
    do {
      again = false
      const now = wanted()
      if (!now) break
      calls ??= connect<MomentFunctions>(
        () => new Worker(new URL('../../../workers/moments-worker.ts', import.meta.url), { type: 'module' }),
        'The worker of moments',
      )
      const { mediaHash, grade, moments } = now
      const of = calls
      const drawn = await Promise.all(
        moments.map(async ({ id, frame }) => {
          const image = await of.ask('draw', { mediaHash, frameIndex: frame, grade }).catch(() => null)
          return [id, image] as const
        }),
      )
      images.value = new Map(drawn.flatMap(([id, image]) => (image ? [[id, image] as const] : [])))
    } while (again)
    drawing = false
  }
  watch(wanted, () => void draw(), { immediate: true })
  onScopeDispose(() => calls?.close())
  return { images }
}
