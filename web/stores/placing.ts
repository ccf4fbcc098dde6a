// A recipe on its way into the open grade: what is particular to the shot is asked for and shown before anything is
// kept.
import { cutTo } from '@core/names'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { encodingById } from '@core/colour'
import { applyRecipe, placeRegion, setRead, type GradeDocument, type Recipe, type RecipeRegion } from '@core/grade'
import { centreOf, changedShape, type Region, type Shape } from '@core/regions'
import type { GuessSummary } from '@contracts/responses'
import { useGrade } from './grade'

/**
 * The encodings that footage could have while it is read by one of several that its pixels cannot tell apart, the
 * present one first; empty where it is settled.
 */
export function unsettledEncodings(guess: GuessSummary | null, encodingId: string): readonly string[] {
  // What opened as its file looks is finished, or is asked about where it is seen.
  const asItLooks = guess?.opening.because === 'as it looks' && guess.opening.encodingId === encodingId
  const alike = asItLooks ? [] : (guess?.alike ?? [])
  return alike.length > 1 && alike.includes(encodingId) ? [encodingId, ...alike.filter((id) => id !== encodingId)] : []
}

export const usePlacing = defineStore('placing', () => {
  const grade = useGrade()
  const recipe = shallowRef<Omit<Recipe, 'id'> | null>(null)
  /** The recipe that the list stands at, by its id. */
  const chosen = ref('')
  const regions = shallowRef<readonly RecipeRegion[]>([])
  const index = ref(0)
  /** Encodings that the shot's footage could be read by, where nothing has settled which; empty where it is known. */
  const encodings = shallowRef<readonly string[]>([])
  const encodingId = ref<string | null>(null)

  /** Shots whose encoding has been asked for: once is enough. */
  const answered = new Set<string>()

  function changed(document: GradeDocument): GradeDocument {
    if (!recipe.value) return document
    const read =
      encodingId.value === null || encodingId.value === document.read.encodingId
        ? document
        : setRead(document, { encodingId: encodingId.value, gamutId: encodingById(encodingId.value).gamutIds[0] })
    return applyRecipe(read, { steps: recipe.value.steps, regions: regions.value })
  }
  /** The grade with the recipe in it; null while none is on its way. */
  const proposal = computed(() => (recipe.value && grade.document ? changed(grade.document) : null))
  const region = computed<Region | null>(() => {
    const open = recipe.value && regions.value[index.value]
    return open ? { ...open, enabled: true } : null
  })

  /** Takes a recipe in at once where nothing is to be asked, else begins to ask. */
  function begin(wanted: Omit<Recipe, 'id'>, unsettled: readonly string[]): void {
    const asked = answered.has(grade.shotId ?? '') ? [] : unsettled
    recipe.value = wanted
    regions.value = wanted.regions
    index.value = 0
    encodings.value = asked
    encodingId.value = null
    if (wanted.regions.length === 0 && asked.length === 0) keep()
  }
  /** Shows steps that are not to be kept unseen, though nothing is asked. */
  function show(wanted: Omit<Recipe, 'id'>): void {
    recipe.value = wanted
    regions.value = wanted.regions
    index.value = 0
    encodings.value = []
    encodingId.value = null
  }
  const change = (to: (region: RecipeRegion) => RecipeRegion): void => {
    regions.value = regions.value.map((r, i) => (i === index.value ? to(r) : r))
  }
  /** The first shape of the region in another form; all others of it go along. */
  function setShape(shape: Shape): void {
    change((r) => {
      const first = r.components.find((p) => p.source.kind === 'shape')?.source
      if (first?.kind !== 'shape') return r
      const from = centreOf(first.shape)
      const to = centreOf(shape)
      const by = { x: to.x - from.x, y: to.y - from.y }
      return {
        ...r,
        components: r.components.map((p) =>
          p.source.kind !== 'shape'
            ? p
            : {
                ...p,
                source: { ...p.source, shape: p.source === first ? shape : changedShape(p.source.shape, 1, by) },
              },
        ),
      }
    })
  }
  const setSoftness = (softness: { readonly inner?: number; readonly outer?: number }): void =>
    change((r) => ({
      ...r,
      components: r.components.map((p) =>
        p.source.kind === 'shape' ? { ...p, source: { ...p.source, ...softness } } : p,
      ),
    }))
  /** All shapes of what is being placed, moved and sized together. */
  const moveAll = (aspect: number, by: Parameters<typeof placeRegion>[2]): void => {
    regions.value = regions.value.map((r) => placeRegion(r, aspect, by))
  }
  function keep(): void {
    const { value: wanted } = recipe
    if (!wanted) return
    if (encodings.value.length > 0) answered.add(grade.shotId ?? '')
    grade.edit(cutTo(`Recipe ${wanted.name}`, 200), changed)
    leave()
  }
  function leave(): void {
    recipe.value = null
    regions.value = []
  }
  watch(() => grade.shotId, leave)
  return {
    chosen,
    recipe,
    regions,
    index,
    region,
    encodings,
    encodingId,
    proposal,
    begin,
    show,
    setShape,
    setSoftness,
    moveAll,
    keep,
    leave,
  }
})
