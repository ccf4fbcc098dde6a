<!-- Long: half of it is the style of what stands in one line. -->

<script setup lang="ts">
// The header: mark, project, previous and next shot, the views by name, undo and redo, and what is saved.
import { ChevronLeft, ChevronRight, Redo2, Undo2 } from '@lucide/vue'
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { ShotDetail, ShotSummary } from '@contracts/responses'
import { request } from '../api/client'
import { useGrade } from '../stores/grade'
import { usePalette } from '../stores/palette'
import { useProjects } from '../stores/projects'
import { useView } from '../stores/view'
import { tipOfView } from '../views/glossary/terms'
import { menu } from '../views/menu'

const props = defineProps<{
  project?: { id: string; name: string } | undefined
  shot?: ShotDetail | null | undefined
}>()
const grade = useGrade()
const view = useView()
const palette = usePalette()
const projects = useProjects()
const route = useRoute()
const router = useRouter()

const shotRoute = computed(() => (route.name === 'dispatch' || route.name === 'record' ? route.name : 'bench'))
const query = computed(() => ({ station: view.station }))
/**
 * The frame that links carry: once it rests, or while a hand or the focus is near, as links are dear to redraw at every
 * frame that plays.
 */
const rested = refDebounced(
  computed(() => view.frame),
  250,
)
const near = ref(false)
const frame = computed(() => (near.value ? view.frame : rested.value))
const views = computed(() => {
  const { project = null, shot = null } = props
  const context = { project, shot, frame: frame.value, query: route.query }
  return menu.flatMap((entry) => {
    const to = entry.to(context)
    return to ? [{ ...entry, to }] : []
  })
})
palette.offer(() =>
  views.value.map(({ name, to }) => ({ id: `view ${name}`, group: 'View', name, run: () => void router.push(to) })),
)
palette.offer(() => [
  { id: 'view glossary', group: 'View', name: 'Glossary', run: () => void router.push({ name: 'glossary' }) },
])
palette.offer(async () => {
  await projects.load()
  return projects.all.map(({ id, name }) => ({
    id: `project ${id}`,
    group: 'Project',
    name,
    run: () => void router.push({ name: 'reel', params: { projectId: id } }),
  }))
})
palette.offer(async () => {
  const of = props.project?.id
  if (!of) return []
  const { shots } = await request<{ readonly shots: readonly ShotSummary[] }>(`/projects/${of}/reel`)
  return shots.map(({ id, name }) => ({
    id: `shot ${id}`,
    group: 'Shot',
    name,
    run: () => void router.push({ name: shotRoute.value, params: { shotId: id }, query: query.value }),
  }))
})
const saved = computed(() => {
  const at = grade.revision?.savedAt
  const time = at ? new Date(at).toLocaleTimeString('en-GB') : ''
  switch (grade.saveState) {
    case 'saved':
      return `saved ${time}`
    case 'unsaved':
      return 'not saved yet'
    case 'saving':
      return 'saving …'
    case 'retrying':
      return 'not saved, trying again'
    case 'conflict':
      return 'changed elsewhere'
    case 'refused':
      return 'not saved'
  }
})
const troubled = computed(() => ['retrying', 'conflict', 'refused'].includes(grade.saveState))
</script>

<template>
  <header
    class="header"
    @pointerenter="near = true"
    @focusin="near = true"
    @pointerleave="near = false"
    @focusout="near = false"
  >
    <RouterLink
      to="/"
      class="mark"
      aria-label="Pale Meridian: all projects"
    >
      Pale Meridian
    </RouterLink>
    <RouterLink
      v-if="project"
      class="project"
      :to="{ name: 'reel', params: { projectId: project.id } }"
    >
      {{ project.name }}
    </RouterLink>
    <nav
      v-if="shot"
      class="shots"
      aria-label="Shots"
    >
      <RouterLink
        v-if="shot.previousShotId"
        class="step"
        :to="{ name: shotRoute, params: { shotId: shot.previousShotId }, query }"
        aria-label="Previous shot"
      >
        <ChevronLeft class="icon" />
      </RouterLink>
      <span
        v-else
        class="step off"
        aria-hidden="true"
      >
        <ChevronLeft class="icon" />
      </span>
      <span class="shot">{{ shot.name }}</span>
      <RouterLink
        v-if="shot.nextShotId"
        class="step"
        :to="{ name: shotRoute, params: { shotId: shot.nextShotId }, query }"
        aria-label="Next shot"
      >
        <ChevronRight class="icon" />
      </RouterLink>
      <span
        v-else
        class="step off"
        aria-hidden="true"
      >
        <ChevronRight class="icon" />
      </span>
    </nav>
    <nav
      class="views"
      aria-label="Views"
    >
      <RouterLink
        v-for="v in views"
        :key="v.route"
        :to="v.to"
        :class="{ here: route.name === v.route }"
        :data-tip="tipOfView(v.route)"
      >
        {{ v.name }}
      </RouterLink>
    </nav>
    <div
      v-if="props.shot"
      class="state"
    >
      <button
        data-tip="Undo: back to the revision before (Ctrl+Z)"
        type="button"
        aria-label="Undo"
        :disabled="!grade.canUndo || grade.moving"
        @click="grade.undo()"
      >
        <Undo2
          class="icon"
          aria-hidden="true"
        />
      </button>
      <button
        data-tip="Redo: forward again (Ctrl+Shift+Z)"
        type="button"
        aria-label="Redo"
        :disabled="!grade.canRedo || grade.moving"
        @click="grade.redo()"
      >
        <Redo2
          class="icon"
          aria-hidden="true"
        />
      </button>
      <slot />
      <button
        v-if="route.name === 'bench'"
        data-tip="The Bench in seven stops. Leave it with Esc; it goes on from there."
        type="button"
        @click="view.touring = true"
      >
        Tour
      </button>
      <button
        data-tip="All keys (?)"
        type="button"
        aria-label="All keys"
        @click="view.showKeys = true"
      >
        ?
      </button>
      <span
        class="saved figures"
        :class="{ troubled }"
        role="status"
        data-testid="saved"
      >
        {{ troubled ? '▲ ' : '' }}{{ saved }}
      </span>
    </div>
  </header>
</template>

<style scoped>
.header {
  height: var(--header);
  display: flex;
  align-items: center;
  gap: var(--gap-wide);
  padding: 0 var(--gap-wide);
  background: var(--panel);
  border-bottom: var(--line) solid var(--hairline);
  white-space: nowrap;
}
.header a {
  text-decoration: none;
}
.mark {
  text-transform: uppercase;
  letter-spacing: 0.14em;
  font-weight: 500;
}
.project {
  color: var(--ink-quiet);
}
.project:hover,
.views a:hover {
  color: var(--ink);
}
.shots {
  display: flex;
  align-items: center;
  gap: var(--gap);
}
.shot {
  min-width: 9em;
  text-align: center;
}
.step {
  padding: var(--gap-small) var(--gap);
}
.off {
  color: var(--hairline);
}
.views {
  display: flex;
  gap: var(--gap-wide);
}
.views a {
  color: var(--ink-quiet);
  padding: var(--gap-small) 0;
  border-bottom: 2px solid transparent;
}
.views a.here {
  color: var(--ink);
  border-bottom-color: var(--accent);
}
.state {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: var(--gap-small);
}
.state button,
.step {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
.state button {
  background: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius);
  padding: var(--gap-hair) var(--gap);
}
.state button:hover:enabled {
  border-color: var(--hairline-strong);
}
.state button:disabled {
  color: var(--hairline-strong);
}
.saved {
  min-width: 15em;
  text-align: right;
  color: var(--ink-quiet);
  font-size: var(--text-small);
}
.troubled {
  color: var(--warning);
}
@media (max-width: 1100px) {
  .header {
    gap: var(--gap);
    padding: 0 var(--gap);
  }
  .views {
    gap: 6px;
  }
  .mark {
    letter-spacing: 0;
  }
  .project {
    max-width: 8em;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .state {
    gap: 0;
  }
  .shot {
    min-width: 0;
    max-width: 8em;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .saved {
    min-width: 8em;
    white-space: normal;
  }
}
</style>
