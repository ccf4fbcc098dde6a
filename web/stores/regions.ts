// The open region: what is chosen in it, how it is looked at, and every edit of it. A recipe that is being placed takes
// its place.
import { cutTo } from '@core/names'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  addComponent,
  addRegion,
  changeComponent,
  changeShapeSource,
  keyComponent,
  moveRegion,
  moveComponent,
  regionStart,
  removeComponent,
  removeRegion,
  setRegion,
  setShapeAt,
  shapeComponent,
  usualSoftness,
  type GradeDocument,
  type RegionStartId,
  type StartMaterial,
} from '@core/grade'
import {
  fitKey,
  regionAt,
  settledAt,
  shapeKindById,
  type KeySample,
  type KeySource,
  type KeyDistribution,
  type MatteFacts,
  type MatteComponent,
  type Region,
  type Shape,
  type ShapeKindId,
  type ShapeSource,
  type ShownShape,
} from '@core/regions'
import { useGrade } from './grade'
import { usePlacing } from './placing'
import { useView } from './view'

export type RegionPage = 'components' | 'key' | 'matte' | 'motion' | 'level' | 'shape' | 'curve' | 'hue' | 'colours'

export const useRegions = defineStore('regions', () => {
  const grade = useGrade()
  const view = useView()
  const placing = usePlacing()
  /** Width / height of the shot's frames; the Bench says so. */
  const aspect = ref(16 / 9)
  const page = ref<RegionPage>('components')
  /** A kind of shape that the next drag or clicks on the picture draw, in place of the chosen component's. */
  const drawing = ref<ShapeKindId | null>(null)
  /** Picking in the picture adds colours to the chosen key, or takes them away. */
  const sampling = ref<KeySample['mode'] | null>(null)
  /** A region of another shot is being chosen. */
  const bringing = ref(false)
  const distribution = shallowRef<KeyDistribution | null>(null)
  const facts = shallowRef<(MatteFacts & { readonly moved: number | null }) | null>(null)
  const factsFresh = ref(false)

  const region = computed<Region | null>(() => {
    const regions = grade.document?.regions ?? []
    return regions.find((r) => r.id === view.regionId) ?? regions[0] ?? null
  })
  watch(region, (now) => {
    if (now && now.id !== view.regionId) view.regionId = now.id
  })
  const component = computed<MatteComponent | null>(
    () => region.value?.components.find((p) => p.id === view.componentId) ?? region.value?.components[0] ?? null,
  )
  const key = computed<KeySource | null>(() => (component.value?.source.kind === 'key' ? component.value.source : null))
  const shape = computed<ShapeSource | null>(() =>
    component.value?.source.kind === 'shape' ? component.value.source : null,
  )

  /**
   * What lies on the picture: the open region as it is at this frame, or the one that is being placed; and the
   * component with handles.
   */
  const onPicture = computed<Region | null>(
    () => placing.region ?? (region.value && regionAt(region.value, view.frame)),
  )
  const handled = computed<(MatteComponent & { readonly source: ShownShape }) | null>(() => {
    const found = placing.region
      ? onPicture.value?.components.find((p) => p.source.kind === 'shape')
      : onPicture.value?.components.find((p) => p.id === component.value?.id)
    return found?.source.kind === 'shape' ? (found as MatteComponent & { readonly source: ShownShape }) : null
  })

  function edit(what: string, change: (grade: GradeDocument, regionId: string) => GradeDocument): void {
    const id = region.value?.id
    if (id !== undefined) grade.edit(cutTo(`${region.value?.name ?? 'Region'}: ${what}`, 200), (g) => change(g, id))
  }
  const editComponent = (what: string, change: (component: MatteComponent) => MatteComponent): void => {
    const id = component.value?.id
    if (id !== undefined) edit(what, (g, regionId) => changeComponent(g, regionId, id, change))
  }
  const editShape = (what: string, change: (source: ShapeSource) => ShapeSource): void => {
    const id = component.value?.id
    if (id !== undefined) edit(what, (g, regionId) => changeShapeSource(g, regionId, id, change))
  }
  const editKey = (what: string, change: (source: KeySource) => KeySource): void =>
    editComponent(what, (p) => (p.source.kind === 'key' ? { ...p, source: change(p.source) } : p))

  function choose(id: string): void {
    view.regionId = id
    view.componentId = null
    leavePicture()
  }
  /** Picking and drawing end where something else begins. */
  function leavePicture(): void {
    drawing.value = null
    sampling.value = null
    bringing.value = false
  }
  function add(start?: RegionStartId, material?: StartMaterial): void {
    const made = start && regionStart(start, aspect.value, material)
    if (start && !made) return
    grade.edit('Region added', (g) => {
      const added = addRegion(g, made || undefined)
      view.regionId = added.regionId
      view.componentId = null
      return added.grade
    })
    leavePicture()
    page.value = 'components'
  }
  function addShape(kind: ShapeKindId): void {
    const fresh = shapeComponent('', shapeKindById(kind).fresh, usualSoftness)
    addAny(shapeKindById(kind).name, fresh)
  }
  function addAny(name: string, fresh: MatteComponent): void {
    edit(`${name} added`, (g, regionId) => {
      const added = addComponent(g, regionId, fresh)
      view.componentId = added.componentId
      return added.grade
    })
    leavePicture()
  }
  const addKey = (): void => {
    addAny('key', keyComponent('', { mode: region.value?.components.length ? 'intersect' : 'add' }))
    page.value = 'key'
  }
  const addOther = (regionId: string): void =>
    addAny('another region', { id: '', mode: 'add', invert: false, opacity: 1, source: { kind: 'region', regionId } })

  /** A hand gave the shape with handles another form at this frame. */
  function setShape(next: Shape): void {
    if (placing.region) return placing.setShape(next)
    const id = component.value?.id
    if (id !== undefined) edit('shape', (g, regionId) => setShapeAt(g, regionId, id, next, view.frame))
  }
  function setSoftness(change: Partial<Pick<ShapeSource, 'inner' | 'outer'>>): void {
    if (placing.region) return placing.setSoftness(change)
    editShape('edge', (source) => ({ ...source, ...change }))
  }
  /** The drawn shape takes the place of the chosen component's; what that followed is forgotten. */
  function drawn(next: Shape): void {
    editShape('drawn', ({ inner, outer }) => ({ kind: 'shape', shape: next, inner, outer }))
    drawing.value = null
  }
  function takeSample(sample: KeySample): void {
    if (sample.colours.length > 0)
      editKey(sample.mode === 'add' ? 'colours added to the key' : 'colours taken from the key', (source) => {
        const samples = [...source.key.samples, sample].slice(-40)
        return { ...source, key: { ...source.key, samples, groups: fitKey(samples) } }
      })
  }
  watch(
    () => grade.shotId,
    () => {
      leavePicture()
      view.soloId = null
      view.matteView = null
      view.componentId = null
      facts.value = null
    },
  )
  watch(() => view.station, leavePicture)

  return {
    aspect,
    page,
    drawing,
    sampling,
    bringing,
    distribution,
    facts,
    factsFresh,
    all: computed(() => grade.document?.regions ?? []),
    region,
    component,
    key,
    shape,
    onPicture,
    handled,
    choose,
    add,
    addShape,
    addKey,
    addOther,
    setShape,
    setSoftness,
    drawn,
    takeSample,
    edit,
    editComponent,
    editShape,
    editKey,
    leavePicture,
    set: (what: string, change: Parameters<typeof setRegion>[2]): void =>
      edit(what, (g, id) => setRegion(g, id, change)),
    remove: (): void => edit('removed', removeRegion),
    order: (by: number): void => edit('order', (g, id) => moveRegion(g, id, by)),
    removeComponent: (componentId: string): void =>
      edit('component removed', (g, id) => removeComponent(g, id, componentId)),
    orderComponent: (componentId: string, by: number): void =>
      edit('order of components', (g, id) => moveComponent(g, id, componentId, by)),
    /** The shape stays as it lies at this frame. */
    still: (): void => editShape('no longer follows', (source) => settledAt(source, view.frame)),
  }
})
