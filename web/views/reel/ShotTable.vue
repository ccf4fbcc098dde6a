<!-- Long: one row of the table, cell by cell. -->

<script setup lang="ts">
// The shots as rows. Only the rows in view exist, so that thousands scroll as smoothly as ten.
import { useVirtualList } from '@vueuse/core'
import { computed, watch } from 'vue'
import { encodingOf } from '@core/grade'
import type { ShotSummary } from '@contracts/responses'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { useStandards } from '../../stores/standards'
import { certaintyOf, lengthOf, sizeOf, sourceOf, standingOf, startOf, warningsOf, type SortKey } from './shot-facts'
import { text } from './text'
import { thumbnailOf } from './thumbnail'
import type { Standing } from '../../composables/useStandings'

const props = defineProps<{
  shots: readonly ShotSummary[]
  standings: ReadonlyMap<string, Standing>
  chosen: ReadonlySet<string>
  cursor: string | null
  sortBy: SortKey
  downward: boolean
}>()
const emit = defineEmits<{
  sort: [key: SortKey]
  press: [id: string, event: MouseEvent]
  open: [shot: ShotSummary]
  drag: [id: string, event: DragEvent]
  dropBefore: [id: string]
}>()

const standardStore = useStandards()
const rowHeight = 76
const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(
  computed(() => [...props.shots]),
  { itemHeight: rowHeight, overscan: 6 },
)

watch(
  () => props.cursor,
  (id) => {
    const at = props.shots.findIndex((s) => s.id === id)
    const box = containerProps.ref.value
    if (at < 0 || !box) return
    if (at * rowHeight < box.scrollTop || (at + 1) * rowHeight > box.scrollTop + box.clientHeight)
      scrollTo(Math.max(0, at - 1))
  },
)

interface Column {
  readonly key: SortKey | 'asShot' | 'graded'
  readonly sorts: boolean
}
const columns: readonly Column[] = (
  ['position', 'asShot', 'graded', 'name', 'scene', 'encoding', 'source', 'state', 'readings', 'warnings'] as const
).map((key) => ({ key, sorts: key !== 'asShot' && key !== 'graded' }))
const ordering = (key: Column['key']): 'ascending' | 'descending' | 'none' => {
  if (key !== props.sortBy) return 'none'
  if (props.downward) return 'descending'
  return 'ascending'
}
</script>

<template>
  <div
    class="table"
    role="grid"
    :aria-rowcount="shots.length + 1"
    aria-multiselectable="true"
    :aria-label="text.title"
  >
    <div
      class="row head caps"
      role="row"
    >
      <span
        v-for="column in columns"
        :key="column.key"
        role="columnheader"
        :aria-sort="ordering(column.key)"
        :class="{ source: column.key === 'source' }"
      >
        <button
          :data-tip="text.tips[column.key]"
          v-if="column.sorts"
          type="button"
          class="caps"
          @click="emit('sort', column.key as SortKey)"
        >
          {{ text.columns[column.key] }}
          <span aria-hidden="true">{{ ordering(column.key) === 'none' ? '' : downward ? ' ↓' : ' ↑' }}</span>
        </button>
        <span
          :data-tip="text.tips[column.key]"
          v-else
        >
          {{ text.columns[column.key] }}
        </span>
      </span>
    </div>
    <div
      v-bind="containerProps"
      class="rows"
      role="rowgroup"
      tabindex="-1"
    >
      <div
        v-bind="wrapperProps"
        role="presentation"
      >
        <div
          v-for="{ data: shot, index } in list"
          :key="shot.id"
          class="row"
          :class="{ chosen: chosen.has(shot.id), here: cursor === shot.id }"
          role="row"
          :aria-rowindex="index + 2"
          :aria-selected="chosen.has(shot.id)"
          :data-shot="shot.name"
          draggable="true"
          @click="emit('press', shot.id, $event)"
          @dblclick="emit('open', shot)"
          @dragstart="emit('drag', shot.id, $event)"
          @dragover.prevent
          @drop.stop.prevent="emit('dropBefore', shot.id)"
        >
          <span
            class="figures quiet"
            role="gridcell"
          >
            {{ shot.position }}
          </span>
          <span role="gridcell">
            <PictureInTurn
              :src="thumbnailOf(shot, 'shot')"
              :alt="`${shot.name} as shot`"
              width="112"
              height="63"
            />
          </span>
          <span role="gridcell">
            <PictureInTurn
              :src="thumbnailOf(shot, 'graded')"
              :alt="`${shot.name} as graded`"
              width="112"
              height="63"
            />
          </span>
          <span role="gridcell">
            <RouterLink
              :to="{ name: 'bench', params: { shotId: shot.id } }"
              draggable="false"
              @click.stop
            >
              {{ shot.name }}
            </RouterLink>
            <span
              class="figures quiet small"
              :data-tip="`${sizeOf(shot)} · ${sourceOf(shot)}`"
            >
              {{ lengthOf(shot) }}
              <br />
              {{ startOf(shot) }}
            </span>
            <RouterLink
              v-if="shot.notes.length"
              class="figures small flag"
              :data-tip="shot.notes.map((n) => n.words).join(' · ')"
              :to="{ name: 'bench', params: { shotId: shot.id }, query: { frame: shot.notes[0]!.frame } }"
              draggable="false"
              @click.stop
            >
              ⚑ {{ text.notes(shot.notes.length) }}
            </RouterLink>
          </span>
          <span
            role="gridcell"
            :class="{ quiet: !shot.scene }"
          >
            {{ shot.scene ?? '–' }}
            <span class="quiet small">
              {{ standardStore.byId(shot.standardId).name }}
              <template v-if="shot.setup">
                <br />
                {{ text.setup(shot.setup.name, shot.setup.shots) }}
              </template>
              <template v-if="shot.look">
                <br />
                <span :data-look="shot.name">
                  {{ text.look(shot.look.name, shot.look.detached, shot.look.strength * shot.look.ownStrength) }}
                </span>
              </template>
            </span>
          </span>
          <span role="gridcell">
            {{ encodingOf(shot.read).name }}
            <span class="quiet small">
              {{ shot.cameraName ?? '' }}
              <br />
              {{ certaintyOf(shot).words }}
            </span>
          </span>
          <span
            role="gridcell"
            class="figures small source"
          >
            {{ sizeOf(shot) }}
            <br />
            <span class="quiet">{{ sourceOf(shot) }}</span>
          </span>
          <span role="gridcell">{{ text.states[shot.state] }}</span>
          <span
            role="gridcell"
            class="small"
            :data-standing="shot.name"
          >
            <span
              :data-tip="standingOf(standings.get(shot.id)).full"
              class="stand"
              :class="{ warning: standingOf(standings.get(shot.id)).off, quiet: !standings.has(shot.id) }"
            >
              <span
                v-if="standingOf(standings.get(shot.id)).off"
                aria-hidden="true"
              >
                ▲
              </span>
              {{ standingOf(standings.get(shot.id)).words }}
              <span
                v-for="r in (standings.get(shot.id) ?? []).slice(0, 2)"
                :key="r.name"
                class="quiet line"
              >
                {{ r.name }}
              </span>
            </span>
          </span>
          <span
            role="gridcell"
            class="small"
          >
            <span
              v-for="w in warningsOf(shot)"
              :key="w"
              class="warning"
            >
              <span aria-hidden="true">▲</span>
              {{ w }}
            </span>
          </span>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.table {
  container-type: inline-size;
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: 0;
  min-width: 0;
}
.rows {
  min-height: 0;
}
.row {
  display: grid;
  grid-template-columns:
    28px 112px 112px minmax(120px, 1.25fr) minmax(70px, 0.7fr) minmax(150px, 1.5fr) minmax(130px, 1.1fr)
    62px 108px minmax(76px, 0.8fr);
  gap: 0 var(--gap-wide);
  height: 76px;
  align-items: center;
  padding: 0 var(--gap);
  border-bottom: var(--line) solid var(--hairline);
  cursor: default;
  line-height: 1.35;
}
.row > span {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
.head {
  height: 28px;
  color: var(--ink-quiet);
}
.head button {
  background: none;
  border: 0;
  padding: 0;
  color: inherit;
  cursor: pointer;
}
.head button:hover {
  color: var(--ink);
}
.rows .row:hover {
  background: var(--veil);
}
.row.chosen {
  background: var(--pressed);
}
.row.here {
  box-shadow: inset 2px 0 0 var(--accent);
}
img {
  display: block;
  width: 112px;
  height: 63px;
  object-fit: contain;
  background: var(--well);
}
/* Where it is narrow, what a file is moves into the tip of its length. */
@container (width < 1000px) {
  .row {
    grid-template-columns:
      22px 76px 76px minmax(122px, 1.2fr) minmax(66px, 0.7fr) minmax(120px, 1.5fr)
      50px 98px minmax(70px, 0.8fr);
    gap: 0 var(--gap);
  }
  .row > .source {
    display: none;
  }
  img {
    width: 76px;
    height: 43px;
  }
}
a {
  text-decoration: none;
  display: block;
  font-size: 14px;
}
a:hover {
  text-decoration: underline;
}
.small {
  font-size: 11px;
  display: block;
}
.stand,
.line {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.warning {
  display: block;
  color: var(--warning);
}
</style>
