<!-- Long: what is on the sheet, in which order, and what is compared depend on each other. -->

<script setup lang="ts">
// The contact sheet: one picture through every LUT and recipe, sorted by what was measured; two of them held side by
// side.
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { clamp } from '@core/numbers'
import { shippedRecipes, type NumberParameter, type Recipe } from '@core/grade'
import type { ShotDetail } from '@contracts/responses'
import { request, sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import ShotChooser from '../../components/ShotChooser.vue'
import { useGrade } from '../../stores/grade'
import { useLuts } from '../../stores/luts'
import type { SheetPicture } from '../../workers/sheet-worker'
import { lutEntry, plainEntry, recipeEntry, type SheetEntry } from './sheet-entries'
import SheetTile from './SheetTile.vue'
import { text } from './text'
import type { ContactSheet } from '../../composables/useContactSheet'

const props = defineProps<{ shot: ShotDetail | null; frame: number; sheet: ContactSheet }>()
const emit = defineEmits<{ choose: [shotId: string]; open: [hash: string] }>()
const lutStore = useLuts()
const grade = useGrade()
const { sheet } = props
const recipes = shallowRef<readonly Recipe[]>([])
const fault = ref('')
/** All that goes on the sheet is known: begun earlier, it would be begun again. */
const ready = ref(false)
onMounted(async () => {
  try {
    recipes.value = await request<readonly Recipe[]>('/recipes')
  } catch (error) {
    fault.value = sentenceOf(error)
  }
  ready.value = true
})

const every = 'every'
const onlyRecipes = 'recipes'
type SortId = keyof typeof text.sheet.sorts
const folder = ref<string>(every)
const strength = ref(1)
const sort = ref<SortId>('name')
const person = ref('')
const folders = computed(() => [
  { id: every, name: text.sheet.every },
  { id: onlyRecipes, name: text.sheet.recipes },
  ...[...new Set(lutStore.all.map((l) => l.folder))].map((f) => ({ id: `folder ${f}`, name: f || text.alone })),
])
const sorts = (Object.keys(text.sheet.sorts) as SortId[]).map((id) => ({ id, name: text.sheet.sorts[id] }))
const people = computed(() => [
  { id: '', name: text.sheet.nobody },
  ...(props.shot?.subjects ?? []).filter((s) => s.here).map(({ id, name }) => ({ id, name })),
])
watch(
  people,
  (now) => {
    if (person.value === '') person.value = now[1]?.id ?? ''
  },
  { immediate: true },
)
const skin = computed(() => props.shot?.subjects.find((s) => s.id === person.value)?.here?.area ?? null)
const document = computed(() => (props.shot && grade.shotId === props.shot.id ? grade.document : null))

const entries = computed((): readonly SheetEntry[] => {
  const read = document.value?.read
  if (!read || !ready.value) return []
  const luts =
    folder.value === onlyRecipes
      ? []
      : lutStore.all.filter((l) => folder.value === every || `folder ${l.folder}` === folder.value)
  const kept = folder.value === every || folder.value === onlyRecipes ? [...recipes.value, ...shippedRecipes] : []
  return [plainEntry, ...luts.map((lut) => lutEntry(lut, read)), ...kept.map(recipeEntry)]
})
const picture = computed((): SheetPicture | null =>
  props.shot && document.value
    ? {
        mediaHash: props.shot.media.hash,
        frameIndex: props.frame,
        range: document.value.read.range,
        grade: document.value,
        skin: skin.value,
      }
    : null,
)
// A hand that moves the strength is waited for.
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  [entries, strength, skin, () => props.frame],
  ([now], before) => {
    clearTimeout(timer)
    if (now.length === 0) return
    timer = setTimeout(
      () => {
        if (picture.value)
          sheet.run(
            picture.value,
            entries.value.map((e) => e.item),
            strength.value,
          )
      },
      before[0]?.length ? 60 : 0,
    )
  },
  { immediate: true },
)

onBeforeUnmount(() => clearTimeout(timer))

const shown = computed(() => {
  const all = entries.value.map((entry, id) => ({ entry, seen: sheet.seen.value.get(id) }))
  const value = ({ seen }: (typeof all)[number]): number | null => {
    if (!seen || 'fault' in seen) return null
    const { facts } = seen
    return {
      name: 0,
      contrast: facts.contrastPercent,
      warmth: facts.warmthStops,
      saturation: facts.saturation,
      skin: facts.skin ? Math.abs(facts.skin.hueDegrees) : null,
    }[sort.value]
  }
  // The plain picture stays first; what has no number yet stays last.
  return sort.value === 'name'
    ? all
    : [...all.slice(0, 1), ...all.slice(1).sort((a, b) => (value(a) ?? Infinity) - (value(b) ?? Infinity))]
})
/**
 * Tiles that stand there: a screen's worth more than have their pictures, so that hundreds do not take the time that
 * the first ones need.
 */
const screenful = 36
const made = ref(screenful)
watch(sheet.done, (done) => {
  made.value = Math.max(made.value, done + screenful)
})
function cancel(): void {
  sheet.cancel()
  made.value = Infinity
}
const compared = ref<{ readonly q: string | null; readonly e: string | null }>({ q: null, e: null })
const at = ref(0)
const comparedEntries = computed(() =>
  (['q', 'e'] as const).flatMap((slot) => {
    const found = shown.value.find((s) => s.entry.key === compared.value[slot])
    return found ? [{ slot, ...found }] : []
  }),
)
const grid = ref<HTMLElement | null>(null)
async function key(event: KeyboardEvent): Promise<void> {
  const columns = Math.max(
    1,
    Math.round(
      (grid.value?.clientWidth ?? 1) / ((grid.value?.firstElementChild as HTMLElement | null)?.offsetWidth || 1),
    ),
  )
  const moves: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -columns, ArrowDown: columns }
  const here = shown.value[at.value]?.entry
  const by = moves[event.key]
  if (by !== undefined) at.value = clamp(at.value + by, 0, shown.value.length - 1)
  else if ((event.key === 'q' || event.key === 'e') && here)
    compared.value = { ...compared.value, [event.key]: compared.value[event.key] === here.key ? null : here.key }
  else if (event.key === 'Enter' && here?.hash) return emit('open', here.hash)
  else return
  event.preventDefault()
  await nextTick()
  ;(grid.value?.children[at.value] as HTMLElement | undefined)?.focus()
}
const strengthScale: NumberParameter = {
  type: 'number',
  label: text.sheet.strength,
  tip: text.sheet.strengthTip,
  unit: '%',
  min: 0,
  max: 1,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
}
</script>

<template>
  <ShotChooser
    v-if="!shot"
    :hint="text.sheet.noShot"
    @choose="emit('choose', $event)"
  />
  <section
    v-else
    class="sheet"
    data-testid="contact-sheet"
    :data-done="sheet.done.value"
    :data-total="entries.length"
  >
    <div class="bar">
      <PlainSelect
        :label="text.sheet.folder"
        :tip="text.partTips.sheet"
        :options="folders"
        :model-value="folder"
        @update:model-value="folder = $event"
      />
      <PlainSelect
        :label="text.sheet.sort"
        :tip="text.sheet.sortTip"
        :options="sorts"
        :model-value="sort"
        @update:model-value="sort = $event as SortId"
      />
      <PlainSelect
        v-if="people.length > 1"
        :label="text.sheet.person"
        :tip="text.sheet.sortTip"
        :options="people"
        :model-value="person"
        @update:model-value="person = $event"
      />
      <ScaleControl
        class="strength"
        :parameter="strengthScale"
        :model-value="strength"
        data-control="sheet-strength"
        @update:model-value="strength = $event"
      />
      <span
        class="figures quiet"
        role="status"
      >
        {{ text.sheet.done(sheet.done.value, entries.length) }}
      </span>
      <button
        v-if="sheet.done.value < entries.length"
        type="button"
        @click="cancel"
      >
        {{ text.sheet.cancel }}
      </button>
    </div>
    <Notice
      :text="fault"
      @close="fault = ''"
    />
    <div
      v-if="comparedEntries.length"
      class="compared"
    >
      <SheetTile
        v-for="h in comparedEntries"
        :key="h.slot"
        large
        :name="`${text.sheet[h.slot === 'q' ? 'left' : 'right']} · ${h.entry.name}`"
        :note="h.entry.note"
        :seen="h.seen"
        :data-held="h.slot"
      />
    </div>
    <div
      ref="grid"
      class="grid"
      role="listbox"
      :aria-label="text.parts.sheet"
      @keydown="key"
    >
      <SheetTile
        v-for="(s, i) in shown.slice(0, made)"
        :key="s.entry.key"
        :name="s.entry.name"
        :note="s.entry.note"
        :seen="s.seen"
        :held="compared.q === s.entry.key ? text.sheet.left : compared.e === s.entry.key ? text.sheet.right : ''"
        role="option"
        :aria-selected="i === at"
        :tabindex="i === at ? 0 : -1"
        @focus="at = i"
        @click="at = i"
        @dblclick="s.entry.hash && emit('open', s.entry.hash)"
      />
    </div>
    <p class="quiet help">{{ text.sheet.help }}</p>
  </section>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-rows: auto auto auto 1fr auto;
  gap: var(--gap);
  min-height: 0;
}
.bar {
  display: flex;
  gap: var(--gap-broad);
  align-items: center;
}
.bar :deep(.choice) {
  width: auto;
  grid-template-columns: auto 150px;
  gap: var(--gap);
}
.strength {
  width: 300px;
  flex: none;
}
.strength :deep(.effect) {
  display: none;
}
.bar button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
}
.compared {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 420px));
  gap: var(--gap);
}
.grid {
  grid-row: 4;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: var(--gap);
  overflow: auto;
  min-height: 0;
  align-content: start;
  padding: 2px;
}
.help {
  margin: 0;
  font-size: 11px;
  grid-row: 5;
}
</style>
