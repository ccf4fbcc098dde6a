// Two shots held against each other: the chosen one as it is edited here, the reference as it stands, what both show,
// and a patch measured in both.
import { computed, shallowRef, watch } from 'vue'
import { differenceMeasure } from '@core/colour'
import { gradeAt, type GradeDocument } from '@core/grade'
import type { TraceImage } from '@core/instruments'
import type { ShotDetail, ShotProposal, ShotSummary } from '@contracts/responses'
import type { Area } from '@core/readings'
import { request, sentenceOf } from '../../api/client'
import { drawPicture } from '../../composables/pictureFile'
import { useBenchRenderer } from '../../composables/useBenchRenderer'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import { useView } from '../../stores/view'
import { mediumOf, shownAspect } from '../../workers/medium'
import type { GradedFrame, Viewing } from '../../workers/messages'
import { keyOfReference, nameOfReference, type Reference } from './held'
import { meanOf, shapedTo } from './patch-mean'
import { text } from './text'
import { useSwatchPairs } from './useSwatchPairs'

export interface Side {
  readonly shot: ShotSummary
  readonly frame: number
}

/** A reference that is a frame through a grade; null where it is an imported picture. */
async function gradedReference(of: Reference): Promise<GradedFrame | null> {
  if (of.kind === 'shot') {
    const { revision } = await request<ShotDetail>(`/shots/${encodeURIComponent(of.shot.id)}`)
    return { medium: mediumOf(of.shot), frameIndex: of.frame, grade: revision.grade }
  }
  const { from } = of.still
  if (!from || !of.of) return null
  const grade = await request<GradeDocument>(`/shots/${from.shotId}/revisions/${from.revisionId}`)
  return { medium: mediumOf(of.of), frameIndex: from.frame, grade }
}
async function importedPicture(stillId: string): Promise<TraceImage> {
  const canvas = await drawPicture(await (await fetch(`/api/stills/${stillId}/picture`)).blob(), () => 1)
  const { width, height } = canvas
  const data = canvas.getContext('2d')?.getImageData(0, 0, width, height)
  if (!data) throw new Error(text.noPicture)
  return { width, height, rgba: data.data }
}

/** Width over height of a drawn reference as it is shown. */
function aspectOf(of: Reference, { width, height }: TraceImage): number {
  const shot = of.kind === 'shot' ? of.shot : of.of
  return shot ? shownAspect(shot) : width / height
}

export function usePair(
  chosen: () => Side | null,
  reference: () => Reference | null,
  onFault: (words: string) => void,
) {
  const openShot = useOpenShot()
  const grade = useGrade()
  const view = useView()
  const renderer = useBenchRenderer()
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work()
    } catch (error) {
      onFault(sentenceOf(error))
    }
  }

  /** The chosen shot's document, once it is open; edits go into it as they do on the Bench. */
  const document = computed(() => (grade.shotId === chosen()?.shot.id ? grade.document : null))
  watch(
    () => chosen()?.shot.id,
    (id) => {
      if (id) void attempt(() => openShot.open(id))
    },
    { immediate: true },
  )

  /** The reference as it was drawn, and width over height as it is shown. */
  const drawn = shallowRef<{ readonly image: TraceImage; readonly aspect: number; readonly name: string } | null>(null)
  const held = computed(() => {
    const side = chosen()
    if (!drawn.value || !side) return null
    const { image, aspect, name } = drawn.value
    return { image: shapedTo(image, aspect, shownAspect(side.shot)), name }
  })
  const patch = shallowRef<Area | null>(null)
  const traced = shallowRef(false)
  const viewing = computed<Viewing>(() => ({
    instruments: view.instruments,
    visible: ['waveform', 'vectorscope'],
    tap: 'finish',
    part: null,
    follow: null,
    overlay: null,
    matte: null,
    reference: traced.value,
  }))
  // The reference is drawn once, and its trace lies under that of the shot.
  watch(
    () => {
      const of = reference()
      return of && keyOfReference(of)
    },
    (key) => {
      const of = reference()
      drawn.value = null
      traced.value = false
      if (!of) return void renderer.ask('reference', { of: null }).catch(() => undefined)
      const stale = (): boolean => {
        const now = reference()
        return !now || keyOfReference(now) !== key
      }
      const name = nameOfReference(of)
      void attempt(async () => {
        const graded = await gradedReference(of)
        if (!graded) {
          const image = of.kind === 'still' ? await importedPicture(of.still.id) : null
          if (!stale()) drawn.value = image && { image, aspect: image.width / image.height, name }
          return
        }
        const viewed = { ...graded, asShot: false, viewing: viewing.value }
        const image = await renderer.ask('draw', viewed)
        const there = await renderer.ask('reference', { of: viewed })
        if (stale()) return
        drawn.value = { image, aspect: aspectOf(of, image), name }
        traced.value = there
      })
    },
    { immediate: true },
  )
  watch(
    [() => chosen()?.shot.id, () => chosen()?.frame, document, viewing, renderer.playing],
    () => {
      const side = chosen()
      if (side && document.value && !renderer.playing.value)
        renderer.show({
          medium: mediumOf(side.shot),
          grade: document.value,
          frameIndex: side.frame,
          asShot: false,
          viewing: viewing.value,
        })
    },
    { immediate: true },
  )

  const patchMeans = computed(() => {
    const now = renderer.shown.value?.picture
    if (!patch.value || !now || !held.value || !document.value) return null
    const measure = differenceMeasure(document.value.show.displayId)
    const [here, there] = [meanOf(held.value.image, patch.value), meanOf(now, patch.value)]
    return { here, there, deltaE: measure.difference(measure.place(...here), measure.place(...there)) }
  })

  const swatches = useSwatchPairs(
    chosen,
    () => held.value?.image ?? null,
    () => {
      const of = reference()
      return of && keyOfReference(of)
    },
    attempt,
  )

  const match = shallowRef<ShotProposal | null>(null)
  const matching = shallowRef(false)
  const struck = shallowRef<readonly number[]>([])
  let asks = 0
  /** What both show, and what would bring them together; of what is saved, so that edits are sent before. */
  async function compare(): Promise<void> {
    const [side, of] = [chosen(), reference()]
    const other = of?.kind === 'shot' ? of : null
    const mine = ++asks
    match.value = null
    if (!side || !other || side.shot.id === other.shot.id) {
      matching.value = false
      return
    }
    matching.value = true
    await attempt(async () => {
      await grade.commit()
      const without = struck.value.length > 0 ? `?without=${struck.value.join()}` : ''
      const found = await request<ShotProposal>(`/shots/${side.shot.id}/match/${other.shot.id}${without}`)
      if (mine === asks) match.value = found
    })
    if (mine === asks) matching.value = false
  }
  watch(
    () => {
      const of = reference()
      return [chosen()?.shot.id, chosen()?.shot.headId, of && keyOfReference(of)].join()
    },
    () => {
      struck.value = []
      void compare()
    },
    { immediate: true },
  )
  const strike = (id: number): void => {
    struck.value = struck.value.includes(id) ? struck.value.filter((s) => s !== id) : [...struck.value, id]
    void compare()
  }
  const stateHere = computed(() => {
    const side = chosen()
    return document.value && side ? gradeAt(document.value, side.frame) : null
  })
  return {
    renderer,
    document,
    stateHere,
    held,
    patch,
    patchMeans,
    swatches,
    match,
    matching,
    struck,
    strike,
    compare,
  }
}
export type Pair = ReturnType<typeof usePair>
