<script setup lang="ts">
// What the shots of the project, or of one scene, have unless they differ: display, rendering, house standard. A change
// moves all that follow, and can be taken back as one.
import { computed, ref, watch } from 'vue'
import { displays } from '@core/colour'
import { defaultRenderings, firstShowDefaults, showMethods } from '@core/grade'
import { defaultStandardId, houseStandards } from '@core/readings'
import type { DefaultsChange } from '@contracts/requests'
import type { Defaults, ProjectDefaults } from '@contracts/responses'
import PlainSelect from '../../components/PlainSelect.vue'
import { useReel } from '../../stores/reel'
import { useStandards } from '../../stores/standards'
import { text } from './text'

const props = defineProps<{ projectId: string; sceneId: string | null; defaults: ProjectDefaults }>()
const emit = defineEmits<{ attempt: [work: () => Promise<void>] }>()
const reelStore = useReel()
const standardStore = useStandards()
const words = text.defaults
/** The choice to inherit. */
const inherit = 'inherit'

const own = computed<Defaults>(
  () => (props.sceneId === null ? undefined : props.defaults.scenes[props.sceneId]) ?? props.defaults.project,
)
const ofProject = computed(() => props.defaults.project)
const methods = showMethods.filter((m) => defaultRenderings.some((id) => id === m.id))
const standards = computed(() => [...houseStandards, ...standardStore.own])

/** The options, before them what the project has, for a scene. */
function options(
  all: readonly { readonly id: string; readonly name: string; readonly tip?: string }[],
  inherited: string,
): readonly { id: string; name: string; tip?: string }[] {
  if (props.sceneId === null) return all
  return [{ id: inherit, name: words.asProject(all.find((o) => o.id === inherited)?.name ?? inherited) }, ...all]
}
const rows = computed(() => [
  {
    key: 'displayId' as const,
    label: words.display,
    tip: words.displayTip,
    first: firstShowDefaults.displayId,
    all: displays,
  },
  {
    key: 'rendering' as const,
    label: words.rendering,
    tip: words.renderingTip,
    first: firstShowDefaults.rendering,
    all: methods,
  },
  {
    key: 'standardId' as const,
    label: words.standard,
    tip: words.standardTip,
    first: defaultStandardId,
    all: standards.value,
  },
])
const value = (key: keyof Defaults, first: string): string =>
  own.value[key] ?? (props.sceneId === null ? first : inherit)

/** The last change made here, to be taken back. */
const last = ref<{ readonly change: DefaultsChange; readonly moved: number } | null>(null)
watch(
  () => [props.projectId, props.sceneId],
  () => {
    last.value = null
  },
)
function set(key: keyof Defaults, id: string): void {
  const change = { sceneId: props.sceneId, [key]: id === inherit ? null : id } as DefaultsChange
  emit('attempt', async () => {
    const { before, moved } = await reelStore.changeDefaults(props.projectId, change)
    last.value = { change: { sceneId: props.sceneId, [key]: before[key] } as DefaultsChange, moved }
  })
}
function takeBack(): void {
  const made = last.value
  if (made)
    emit('attempt', async () => {
      await reelStore.changeDefaults(props.projectId, made.change)
      last.value = null
    })
}
</script>

<template>
  <section
    class="defaults"
    :aria-label="words.title"
  >
    <h3
      class="caps"
      :data-tip="sceneId === null ? words.projectTip : words.sceneTip"
    >
      {{ words.title }}
    </h3>
    <PlainSelect
      v-for="row in rows"
      :key="row.key"
      :label="row.label"
      :tip="row.tip"
      :options="options(row.all, ofProject[row.key] ?? row.first)"
      :model-value="value(row.key, row.first)"
      @update:model-value="set(row.key, $event)"
    />
    <p
      v-if="last"
      class="moved"
      role="status"
      data-testid="defaults-moved"
    >
      {{ words.moved(last.moved) }}
      <button
        type="button"
        class="link"
        @click="takeBack"
      >
        {{ words.undo }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.defaults {
  display: grid;
  gap: var(--gap-small);
  padding: var(--gap);
}
h3 {
  color: var(--ink-quiet);
  font-weight: 400;
}
.defaults :deep(.choice) {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
}
.moved {
  margin: 0;
  font-size: var(--text-small);
}
.link {
  background: none;
  border: 0;
  padding: 0;
  text-decoration: underline;
  cursor: pointer;
}
</style>
