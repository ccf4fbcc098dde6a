<script setup lang="ts">
// The aims: what is wanted, what it comes to, what moves for it, what may not move; kept or taken back as a whole.
import { computed, ref } from 'vue'
import {
  controlsFor,
  goalsOf,
  printQuantity,
  type Aim,
  type AimResult,
  type BalanceLine,
  type ControlId,
} from '@core/aims'
import { useAims } from '../../../stores/aims'
import { text } from '../text'

const props = defineProps<{
  /** Readings are there to balance by. */ ready: boolean
  /** The clip is traced, at least in part. */ traced: boolean
  controlNames: Readonly<Record<ControlId, string>>
}>()
const emit = defineEmits<{ balance: []; wholeClip: [] }>()
const store = useAims()

interface Row {
  readonly id: string
  readonly stage: string
  readonly aim: Aim | null
  readonly name: string
  readonly evidence: string
  readonly result: AimResult | null
  readonly unsure: boolean
}
const results = computed(() => new Map((store.pending ? (store.solution?.aims ?? []) : []).map((r) => [r.aim.id, r])))
const rowOf = (aim: Aim, line?: BalanceLine): Row => ({
  id: aim.id,
  stage: line?.stage ?? '',
  aim,
  name: aim.name,
  evidence: line?.evidence ?? '',
  result: results.value.get(aim.id) ?? null,
  unsure: line ? !line.sure : false,
})
const rows = computed<readonly Row[]>(() => {
  const own = store.aims.filter((a) => !store.lines.some((l) => l.id === a.id)).map((a) => rowOf(a))
  return [
    ...store.lines.map((l) =>
      l.aim
        ? rowOf(store.aims.find((a) => a.id === l.id) ?? l.aim, l)
        : { id: l.id, stage: l.stage, aim: null, name: l.words, evidence: l.evidence, result: null, unsure: !l.sure },
    ),
    ...own,
  ]
})
/** What may move for these aims: locked ones too. */
const controls = computed(() => [...new Set(store.wanted.flatMap((a) => controlsFor(a.want)))])
const moveOf = (id: ControlId): string => store.solution?.moves.find((m) => m.control === id)?.words ?? ''
const unmet = computed(() => [...results.value.values()].filter((r) => !r.met))
const status = computed(() => {
  if (store.fault) return `▲ ${store.fault}`
  if (store.solving) return text.aims.solving
  if (!store.pending) return ''
  if (unmet.value.length > 0) return text.aims.unmet(unmet.value.length)
  if (store.solution) return text.aims.met
  return ''
})

/** Of several numbers only what they come to: there is little room. */
const before = (r: AimResult): string => (r.goals.length > 1 ? '' : `${beforeOf(r)} →`)
const beforeOf = (r: AimResult): string =>
  r.goals.map((g) => (g.before === null ? '–' : printQuantity(g.quantity, g.before))).join(' · ')
const after = (r: AimResult): string =>
  r.goals.map((g) => (g.after === null ? '–' : printQuantity(g.quantity, g.after))).join(' · ')
/** Only a level, a light or a chroma is one number that can be typed. */
const typed = (aim: Aim | null): number | null => {
  if (!aim || !['level', 'luma', 'light', 'chroma'].includes(aim.want.kind)) return null
  const [goal] = goalsOf(aim.want)
  if (!goal) return null
  return Number((goal.quantity === 'stops' ? goal.value : goal.value * 100).toFixed(goal.quantity === 'stops' ? 2 : 1))
}
/** What is being typed stays, though results come in meanwhile. */
const draft = ref<{ readonly id: string; readonly words: string } | null>(null)
function type(aim: Aim, event: Event): void {
  draft.value = null
  const input = event.target as HTMLInputElement
  const value = Number(input.value.replace(',', '.').replace('−', '-'))
  const { want } = aim
  if (!Number.isFinite(value) || input.value.trim() === '') {
    input.value = String(typed(aim))
    return
  }
  if (want.kind === 'light') store.set({ ...aim, want: { ...want, stops: Math.min(8, Math.max(-8, value)) } })
  else if (want.kind === 'level' || want.kind === 'luma' || want.kind === 'chroma')
    store.set({ ...aim, want: { ...want, value: Math.min(1, Math.max(0, value / 100)) } })
}
const unitOf = (aim: Aim): string => (aim.want.kind === 'light' ? 'stops' : '%')
</script>

<template>
  <div
    class="aims"
    data-testid="aims"
    @keydown.enter.exact.self="store.keep"
    @keydown.esc.stop="store.takeBack"
  >
    <p class="tools">
      <button
        :data-tip="text.aims.balanceTip"
        type="button"
        :disabled="!ready"
        @click="emit('balance')"
      >
        {{ text.aims.balance }}
      </button>
      <button
        :data-tip="text.aims.clipTip"
        type="button"
        :disabled="!traced"
        @click="emit('wholeClip')"
      >
        {{ text.aims.clip }}
      </button>
      <span
        class="status"
        :class="{ off: unmet.length > 0 || store.fault }"
        role="status"
        data-testid="aims-status"
      >
        {{ status }}
      </span>
      <button
        v-if="store.pending"
        type="button"
        class="keep"
        :disabled="store.solving || !store.solution"
        @click="store.keep"
      >
        {{ text.aims.keep }}
      </button>
      <button
        v-if="store.pending"
        type="button"
        @click="store.takeBack"
      >
        {{ text.aims.takeBack }}
      </button>
    </p>
    <p
      v-if="rows.length === 0"
      class="quiet"
    >
      {{ text.aims.none }}
    </p>
    <ol v-else>
      <li
        v-for="r in rows"
        :key="r.id"
        :class="{ refused: store.refused.has(r.id), unmet: r.result && !r.result.met }"
        :data-aim="r.id"
      >
        <input
          v-if="r.aim"
          type="checkbox"
          :checked="!store.refused.has(r.id)"
          :aria-label="text.aims.take(r.name)"
          @change="store.refuse(r.id, !($event.target as HTMLInputElement).checked)"
        />
        <span
          v-else
          aria-hidden="true"
          class="quiet"
        >
          –
        </span>
        <span
          :data-tip="r.result?.why || r.evidence || text.aims.tip"
          class="name"
          tabindex="0"
        >
          <span
            v-if="r.result && !r.result.met"
            aria-hidden="true"
          >
            ▲
          </span>
          {{ r.name }}
          <span
            v-if="r.unsure && r.aim"
            class="quiet unsure"
          >
            {{ text.aims.unsure }}
          </span>
        </span>
        <span
          v-if="typed(r.aim) !== null && r.aim"
          class="want"
        >
          <input
            type="text"
            inputmode="decimal"
            class="figures"
            :title="r.aim.want.kind === 'level' && r.aim.want.bound ? text.aims[r.aim.want.bound] : undefined"
            :value="draft?.id === r.id ? draft.words : typed(r.aim)"
            :aria-label="text.aims.wanted(r.name)"
            @input="draft = { id: r.id, words: ($event.target as HTMLInputElement).value }"
            @change="type(r.aim, $event)"
            @keydown.enter.stop="($event.target as HTMLInputElement).blur()"
          />
          {{ unitOf(r.aim)
          }}{{ r.aim.want.kind === 'level' && r.aim.want.bound ? ` ${text.aims[r.aim.want.bound]}` : '' }}
        </span>
        <span
          v-else-if="r.aim"
          class="want quiet"
        >
          {{
            r.aim.want.kind === 'neutral'
              ? text.aims.neutral
              : goalsOf(r.aim.want)
                  .map((g) => printQuantity(g.quantity, g.value))
                  .join(' · ')
          }}
        </span>
        <span
          v-else
          class="evidence quiet"
        >
          {{ r.evidence }}
        </span>
        <span
          v-if="r.result"
          class="figures result"
        >
          <span class="quiet">{{ before(r.result) }}</span>
          {{ after(r.result) }}
        </span>
        <button
          v-if="r.aim"
          type="button"
          class="drop"
          :aria-label="text.aims.drop(r.name)"
          @click="store.drop(r.id)"
        >
          ×
        </button>
      </li>
    </ol>
    <p
      v-for="r in unmet.slice(0, 2)"
      :key="r.aim.id"
      class="why"
    >
      ▲ {{ r.why }}
    </p>
    <p
      v-if="controls.length"
      class="moves"
    >
      <button
        v-for="id in controls"
        :key="id"
        :data-tip="store.locked.has(id) ? text.aims.unlockTip : text.aims.lockTip"
        type="button"
        :aria-pressed="store.locked.has(id)"
        :data-control-lock="id"
        @click="store.lock(id, !store.locked.has(id))"
      >
        {{
          store.locked.has(id)
            ? text.aims.held(props.controlNames[id])
            : moveOf(id) || text.aims.still(props.controlNames[id])
        }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.aims {
  font-size: 12px;
  display: grid;
  gap: 2px;
  align-content: start;
}
p {
  margin: 0;
}
.tools {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  min-height: 26px;
}
.status {
  flex: 1;
  text-align: right;
  font-size: 11px;
  color: var(--ink-quiet);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.status.off,
.why,
.unmet .name {
  color: var(--warning);
}
.why {
  font-size: 11px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 24px minmax(70px, auto) auto minmax(0, 1fr) 24px;
  gap: var(--gap-small);
  align-items: center;
  min-height: 24px;
  border-bottom: var(--line) solid var(--raised);
}
.refused {
  opacity: 0.6;
}
.name {
  white-space: nowrap;
}
.unsure {
  margin-left: var(--gap-small);
  font-size: 11px;
}
.evidence {
  grid-column: 3 / -1;
  font-size: 11px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.result {
  grid-column: 4;
  text-align: right;
  font-size: 11px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.want {
  grid-column: 3;
  white-space: nowrap;
  font-size: 11px;
}
.want input {
  width: 52px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  text-align: right;
  padding: 0 4px;
}
.drop {
  grid-column: 5;
  background: none;
  border: 0;
  padding: 0;
  min-width: 24px;
  min-height: 24px;
}
input[type='checkbox'] {
  accent-color: var(--accent);
  margin: 0 auto;
  width: 14px;
  height: 14px;
}
.moves {
  display: flex;
  flex-wrap: wrap;
  gap: 2px var(--gap-small);
  margin-top: 2px;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 6px;
  min-height: var(--control);
  font-size: 11px;
}
button:hover:enabled {
  border-color: var(--accent);
}
button:disabled {
  color: var(--ink-quiet);
}
.keep {
  border-color: var(--accent);
  color: var(--accent);
}
[aria-pressed='true'] {
  background: var(--pressed);
}
</style>
