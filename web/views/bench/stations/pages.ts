// The registry of the station panel: which pages a station has, which steps stand on each, and which pages have an
// editor of their own. A kind that nobody lists here is drawn as scales on the page it names.
import type { Component } from 'vue'
import { stations, stepKinds, type StationId, type StationPage, type StepKind } from '@core/grade'
import CdlPage from './CdlPage.vue'
import CleanColoursPart from './CleanColoursPart.vue'
import ColoursPage from './ColoursPage.vue'
import { editedOn } from './edited-kinds'
import FinishPage from './FinishPage.vue'
import LutsPage from './LutsPage.vue'
import ReadPage from './ReadPage.vue'
import RecipesPage from './RecipesPage.vue'
import RegionsPage from './RegionsPage.vue'
import SharedLookPage from './SharedLookPage.vue'
import ShowPage from './ShowPage.vue'
import SteadyControls from './SteadyControls.vue'
import TonesPage from './TonesPage.vue'

/** What stands on a page in place of scales, or above and below them. */
interface PageEditor {
  readonly component: Component
  /** The kinds that it edits: they get no scales. */
  readonly edits: readonly string[]
  /** It stands below the scales of the page instead of filling it. */
  readonly below?: true
}

const editors: Readonly<Record<string, PageEditor>> = {
  'read/read': { component: ReadPage, edits: [] },
  'level/level': { component: SteadyControls, edits: [], below: true },
  'shape/tones': { component: TonesPage, edits: [...editedOn.toneCurves, ...editedOn.zones] },
  'hue/saturation': { component: CleanColoursPart, edits: [], below: true },
  'hue/colours': { component: ColoursPage, edits: editedOn.colourCurves },
  'regions/regions': { component: RegionsPage, edits: [] },
  'look/luts': { component: LutsPage, edits: editedOn.luts },
  'look/recipes': { component: RecipesPage, edits: [] },
  'look/cdl': { component: CdlPage, edits: editedOn.decisionList },
  'look/shared': { component: SharedLookPage, edits: [] },
  'show/show': { component: ShowPage, edits: [] },
  'finish/finish': { component: FinishPage, edits: [] },
}

export interface DrawnPage extends StationPage {
  readonly editor: PageEditor | null
  /** Kinds whose steps are drawn as scales. */
  readonly scales: readonly StepKind[]
}

/** The pages of a station: those it declares, then those that only a step kind names. */
export function pagesOf(stationId: StationId, kinds: readonly StepKind[] = stepKinds): readonly DrawnPage[] {
  const station = stations.find((s) => s.id === stationId)
  const here = kinds.filter((k) => k.station === stationId)
  const declared = station?.pages ?? []
  const own = here
    .filter((k, i) => !declared.some((p) => p.id === k.page) && here.findIndex((o) => o.page === k.page) === i)
    .map((k): StationPage => ({ id: k.page, name: k.page.replaceAll('-', ' ') }))
  return [...declared, ...own].map((page) => {
    const editor = editors[`${stationId}/${page.id}`] ?? null
    return { ...page, editor, scales: here.filter((k) => k.page === page.id && !editor?.edits.includes(k.id)) }
  })
}
