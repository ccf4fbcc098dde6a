<script setup lang="ts">
// The aims: what is wanted, what it comes to, what moves for it, what may not move; kept or taken back as a whole.
import { computed } from 'vue'
import { controlsFor, type Aim, type BalanceLine, type ControlId } from '@core/aims'
import { useAims } from '../../../stores/aims'
import { useBalance } from '../../../stores/balance'
import { text } from '../text'
import type { AimRowFacts } from './aim-row'
import AimRow from './AimRow.vue'
import BalanceChoices from './BalanceChoices.vue'

const props = defineProps<{
  /** Readings are there to balance by. */ ready: boolean
  /** The clip is traced, at least in part. */ traced: boolean
  controlNames: Readonly<Record<ControlId, string>>
}>()
const emit = defineEmits<{ balance: []; standard: []; wholeClip: [] }>()
const balancing = useBalance()
const store = useAims()

const results = computed(() => new Map((store.pending ? (store.solution?.aims ?? []) : []).map((r) => [r.aim.id, r])))
const rowOf = (aim: Aim, line?: BalanceLine): AimRowFacts => ({
  id: aim.id,
  stage: line?.stage ?? '',
  aim,
  name: aim.name,
  evidence: line?.evidence ?? '',
  result: results.value.get(aim.id) ?? null,
  unsure: line ? !line.sure : false,
})
const rows = computed<readonly AimRowFacts[]>(() => {
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
        :data-tip="text.balance.tip"
        type="button"
        class="button"
        @click="emit('balance')"
      >
        {{ text.balance.title }}
      </button>
      <button
        :data-tip="text.aims.standardTip"
        type="button"
        class="button"
        :disabled="!ready"
        @click="emit('standard')"
      >
        {{ text.aims.standard }}
      </button>
      <button
        :data-tip="text.aims.clipTip"
        type="button"
        class="button"
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
        class="button keep"
        :disabled="store.solving || !store.solution"
        @click="store.keep"
      >
        {{ text.aims.keep }}
      </button>
      <button
        v-if="store.pending"
        type="button"
        class="button"
        @click="store.takeBack"
      >
        {{ text.aims.takeBack }}
      </button>
    </p>
    <BalanceChoices v-if="balancing.open" />
    <p
      v-else-if="rows.length === 0"
      class="quiet"
    >
      {{ text.aims.none }}
    </p>
    <ol v-else>
      <AimRow
        v-for="r in rows"
        :key="r.id"
        :row="r"
      />
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
        class="button"
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
.why {
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
.moves {
  display: flex;
  flex-wrap: wrap;
  gap: 2px var(--gap-small);
  margin-top: 2px;
}
.keep {
  border-color: var(--accent);
  color: var(--accent);
}
[aria-pressed='true'] {
  background: var(--pressed);
}
</style>
