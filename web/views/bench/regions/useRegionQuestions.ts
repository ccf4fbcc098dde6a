// What the open region asks of the picture: its distribution for a key, what its matte is worth, colours picked from
// it, and a subject to begin with.
import { cutTo } from '@core/names'
import { watch } from 'vue'
import {
  defaultParameters,
  regionContent,
  stepKindById,
  type GradeDocument,
  type RecipeStep,
  type RegionStartId,
} from '@core/grade'
import type { Area } from '@core/readings'
import type { KeySample } from '@core/regions'
import type { ShotDetail } from '@contracts/responses'
import { request, sentenceOf } from '../../../api/client'
import type { BenchRenderer } from '../../../composables/useBenchRenderer'
import { useGrade } from '../../../stores/grade'
import { usePlacing } from '../../../stores/placing'
import { useRegions } from '../../../stores/regions'
import { useTracking, type Clip } from '../../../stores/tracking'
import { useView } from '../../../stores/view'
import { mediumOf } from '../../../workers/medium'
import { text } from '../text'

export interface RegionQuestions {
  readonly start: (id: RegionStartId) => Promise<void>
  /** Shows a region of another shot where it was found here, before it is kept. */
  readonly bring: (shotId: string, regionId: string) => Promise<void>
  readonly sample: (mode: KeySample['mode'], area: Area) => Promise<void>
}

export function useRegionQuestions(
  renderer: BenchRenderer,
  subject: () => Area | null,
  clip: () => Clip | null,
  aspect: () => number,
  onFault: (sentence: string) => void,
): RegionQuestions {
  const regions = useRegions()
  const placing = usePlacing()
  const tracking = useTracking()
  const view = useView()
  const grade = useGrade()
  watch(
    aspect,
    (now) => {
      regions.aspect = now
    },
    { immediate: true },
  )
  watch(
    clip,
    (now) => {
      tracking.clip = now
    },
    { immediate: true },
  )
  watch(
    [() => view.station, () => regions.page, () => regions.key?.key.tap, renderer.settled, () => view.frame],
    async ([station, page, tap, settled]) => {
      if (station !== 'regions' || page !== 'key' || tap === undefined) regions.distribution = null
      else if (settled) regions.distribution = await renderer.ask('keyDistribution', { tap })
    },
  )

  /**
   * The grade as it was when each region's components were last changed: what moved its matte since then came from
   * elsewhere.
   */
  const keyed = new Map<string, { readonly components: string; readonly grade: GradeDocument }>()
  watch(
    () => grade.document,
    (now) => {
      for (const { id, components } of now?.regions ?? []) {
        const words = JSON.stringify(components)
        if (now && keyed.get(id)?.components !== words) keyed.set(id, { components: words, grade: now })
      }
    },
    { immediate: true },
  )
  watch(
    () => grade.shotId,
    () => keyed.clear(),
  )
  watch(
    [() => view.station, () => regions.page, () => regions.region, renderer.settled, () => view.frame],
    async ([station, page, region, settled]) => {
      regions.factsFresh = false
      if (station !== 'regions' || page !== 'matte' || !region) regions.facts = null
      else if (settled) {
        const then = keyed.get(region.id)?.grade ?? null
        const asked = { regionId: region.id, then: then === grade.document ? null : then }
        const matte = await renderer.ask('matteWorth', asked)
        if (regions.region !== region || !renderer.settled.value) return
        regions.facts = matte
        regions.factsFresh = true
      }
    },
  )

  /** What is open: an answer that comes when something else is, is dropped. */
  const whatIsOpen = (): string => [grade.shotId, regions.region?.id, regions.component?.id].join()
  async function sample(mode: KeySample['mode'], area: Area): Promise<void> {
    const { key } = regions
    const asked = whatIsOpen()
    if (!key) return
    const found = await renderer.ask('keySample', { tap: key.key.tap, mode, area })
    if (found && whatIsOpen() === asked) regions.takeSample(found)
  }
  async function start(id: RegionStartId): Promise<void> {
    const area = id === 'face' ? subject() : null
    const { shotId } = grade
    const found = area && (await renderer.ask('keySample', { tap: 'hue', mode: 'add', area }))
    if (grade.shotId !== shotId) return
    regions.add(id, { chosen: regions.region, ...(area && found ? { subject: { ...area, sample: found } } : {}) })
    // Without a subject the skin is picked next.
    if (id === 'face' && !found) {
      regions.page = 'key'
      regions.sampling = 'add'
    }
  }
  async function bring(shotId: string, regionId: string): Promise<void> {
    const { shotId: onto } = grade
    try {
      const other = await request<ShotDetail>(`/shots/${encodeURIComponent(shotId)}`)
      const { grade: theirs } = other.revision
      const content = regionContent(theirs, regionId, other.leadFrame)
      const from = { medium: mediumOf(other), frameIndex: other.leadFrame, grade: theirs }
      const found = await renderer.ask('placeRegion', { regionId, from })
      if (grade.shotId !== onto) return
      const stops = found?.stops ?? null
      const name = content.regions.find((r) => r.id === regionId)?.name ?? ''
      placing.show({
        name: cutTo(`${other.name}: ${name}`, 60),
        note: found?.by ? text.regions.bringNote(found.how, found.sure, stops) : text.regions.bringUnfound,
        regions: content.regions,
        steps: stops === null ? content.steps : withExposure(content.steps, regionId, stops),
      })
      if (found?.by) placing.moveAll(regions.aspect, found.by)
      regions.leavePicture()
    } catch (error) {
      onFault(sentenceOf(error))
    }
  }
  return { start, sample, bring }
}

/** The steps with so many stops more in the region's exposure, which is added where there was none. */
function withExposure(steps: readonly RecipeStep[], regionId: string, stops: number): readonly RecipeStep[] {
  const kind = stepKindById('exposure')
  const { min, max } = kind.parameters['exposureStops'] as { min: number; max: number }
  const own = steps.find((s) => s.kind === 'exposure' && s.regionId === regionId)
  const value = (now: unknown): number =>
    Math.round(Math.min(max, Math.max(min, (typeof now === 'number' ? now : 0) + stops)) * 100) / 100
  if (own)
    return steps.map((s) =>
      s === own ? { ...s, params: { ...s.params, exposureStops: value(s.params['exposureStops']) } } : s,
    )
  return [
    ...steps,
    {
      kind: kind.id,
      name: kind.name,
      strength: 1,
      side: steps[0]?.side ?? 'scene',
      params: { ...defaultParameters(kind), exposureStops: value(0) },
      regionId,
    },
  ]
}
