// What the open region asks of the picture: how it is spread for a key, what its matte is worth, colours picked from it, and a subject to begin with.
import { watch } from 'vue'
import type { Area, GradeDocument, KeySample, RegionStartId } from '@core/index'
import type { BenchRenderer } from '../../../composables/useBenchRenderer'
import { useGrade } from '../../../stores/grade'
import { useRegions } from '../../../stores/regions'
import { useTracking, type Clip } from '../../../stores/tracking'
import { useView } from '../../../stores/view'

export interface RegionLooks {
  readonly start: (id: RegionStartId) => Promise<void>
  readonly sample: (mode: KeySample['mode'], area: Area) => Promise<void>
}

export function useRegionLooks(renderer: BenchRenderer, subject: () => Area | null, clip: () => Clip | null, aspect: () => number): RegionLooks {
  const regions = useRegions(), tracking = useTracking(), view = useView(), grade = useGrade()
  watch(aspect, (now) => { regions.aspect = now }, { immediate: true })
  watch(clip, (now) => { tracking.clip = now }, { immediate: true })
  watch([() => view.station, () => regions.page, () => regions.key?.key.tap, renderer.settled, () => view.frame], async ([station, page, tap, settled]) => {
    if (station !== 'regions' || page !== 'key' || tap === undefined) regions.spread = null
    else if (settled) regions.spread = (await renderer.keySpread(tap)).keySpread
  })

  /** The grade as it was when each region's pieces were last changed: what moved its matte since then came from elsewhere. */
  const keyed = new Map<string, { readonly pieces: string; readonly grade: GradeDocument }>()
  watch(() => grade.document, (now) => {
    for (const { id, pieces } of now?.regions ?? []) { const words = JSON.stringify(pieces); if (now && keyed.get(id)?.pieces !== words) keyed.set(id, { pieces: words, grade: now }) }
  }, { immediate: true })
  watch(() => grade.shotId, () => keyed.clear())
  watch([() => view.station, () => regions.page, () => regions.region, renderer.settled, () => view.frame], async ([station, page, region, settled]) => {
    regions.factsFresh = false
    if (station !== 'regions' || page !== 'matte' || !region) regions.facts = null
    else if (settled) {
      const then = keyed.get(region.id)?.grade ?? null, { matte } = await renderer.matteFacts(region.id, then === grade.document ? null : then)
      if (regions.region !== region || !renderer.settled.value) return
      regions.facts = matte
      regions.factsFresh = true
    }
  })

  async function sample(mode: KeySample['mode'], area: Area): Promise<void> {
    const { key } = regions
    if (!key) return
    const found = (await renderer.keySample(key.key.tap, mode, area)).sample
    if (found) regions.takeSample(found)
  }
  async function start(id: RegionStartId): Promise<void> {
    const area = id === 'face' ? subject() : null, found = area && (await renderer.keySample('hue', 'add', area)).sample
    regions.add(id, { chosen: regions.region, ...(area && found ? { subject: { ...area, sample: found } } : {}) })
    // Without a subject the skin is picked next.
    if (id === 'face' && !found) {
      regions.page = 'key'
      regions.sampling = 'add'
    }
  }
  return { start, sample }
}
