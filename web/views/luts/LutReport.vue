<!-- Long: one report, read from top to bottom. -->

<script setup lang="ts">
// One LUT: what it was made for and where it belongs, its numbers, what it does to greys, hues and skins, and its
// entries to turn about.
import { cutTo } from '@core/names'
import DownloadLink from '../../components/DownloadLink.vue'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { ElButton } from 'element-plus'
import { placeFor, placeLut } from '@core/lut-bench'
import { unpackLut, type Lut } from '@core/luts'
import type { LutInspection, LutSummary, ShotDetail } from '@contracts/responses'
import { request, sentenceOf } from '../../api/client'
import { useGrade } from '../../stores/grade'
import { useLuts } from '../../stores/luts'
import GreyChart from './GreyChart.vue'
import LatticeView from './LatticeView.vue'
import SkinTable from './SkinTable.vue'
import { text } from './text'
import WheelChart from './WheelChart.vue'

const props = defineProps<{ lut: LutSummary; shot: ShotDetail | null }>()
const emit = defineEmits<{ remove: [] }>()
const lutStore = useLuts()
const grade = useGrade()
const found = shallowRef<LutInspection | null>(null)
const table = shallowRef<Lut | null>(null)
const fault = ref('')
const said = ref('')
onMounted(async () => {
  try {
    const [inspection, bytes] = await Promise.all([
      request<LutInspection>(`/luts/${props.lut.hash}/inspection`),
      fetch(`/api/luts/${props.lut.hash}/packed`).then((r) => r.arrayBuffer()),
    ])
    found.value = inspection
    table.value = unpackLut(new Uint8Array(bytes))
    if (!props.lut.expects) void lutStore.load()
  } catch (error) {
    fault.value = sentenceOf(error)
  }
})
const document = computed(() => (props.shot && grade.shotId === props.shot.id ? grade.document : null))
const place = computed(() => (found.value && document.value ? placeFor(found.value.expects, document.value) : null))
watch(document, () => {
  said.value = ''
})
function put(): void {
  const { value: wanted } = place
  if (!wanted) return
  grade.edit(cutTo(`LUT ${props.lut.name} in ${wanted.place === 'show' ? 'Show' : 'Look'}`, 200), (g) =>
    placeLut(g, props.lut.hash, wanted),
  )
  said.value = text.place.placed
}
const percent = (v: number, digits = 1): string => `${(v * 100).toFixed(digits)} %`
const { facts: words } = text
const facts = computed(() => {
  const i = found.value
  if (!i) return []
  const some = (list: readonly { from: number; to: number }[]): string =>
    list.length === 0
      ? words.none
      : list
          .slice(0, 3)
          .map((s) => words.stretch(s.from, s.to))
          .join(', ')
  return [
    {
      id: 'size',
      name: words.size,
      tip: words.sizeTip,
      value: `${props.lut.dimensions === 'sequence' ? `${i.parts} parts, ` : `${props.lut.dimensions}D, `}${i.size}`,
    },
    {
      id: 'domain',
      name: words.domain,
      tip: words.domainTip,
      value: `${percent(i.domain.low, 0)} … ${percent(i.domain.high, 0)}`,
    },
    {
      id: 'range',
      name: words.range,
      tip: words.rangeTip,
      value: `${percent(i.range.low)} … ${percent(i.range.high)}`,
    },
    {
      id: 'grey',
      name: words.grey,
      tip: words.greyTip,
      value: `${percent(i.middleGrey.in)} → ${percent(i.middleGrey.out)}, slope ${i.middleGrey.slope.toFixed(2)}`,
    },
    {
      id: 'drift',
      name: words.drift,
      tip: words.driftTip,
      value: `ΔE ${i.drift.deltaE.toFixed(1)} ${words.atInput(i.drift.at)}`,
    },
    { id: 'clipped', name: words.clipped, tip: words.clippedTip, value: percent(i.clippedShare) },
    {
      id: 'bend',
      name: words.bend,
      tip: words.bendTip,
      value: `${i.bend.percent.toFixed(1)} % ${words.atInput(i.bend.at)}`,
    },
    { id: 'folds', name: words.folds, tip: words.foldsTip, value: some(i.folds), warn: i.folds.length > 0 },
    { id: 'banding', name: words.banding, tip: words.bandingTip, value: some(i.banding), warn: i.banding.length > 0 },
    ...(i.notes.length > 0
      ? [{ id: 'notes', name: words.notes, tip: words.notesTip, value: i.notes.join(' '), warn: true }]
      : []),
  ]
})
</script>

<template>
  <section
    class="report"
    data-testid="lut-report"
  >
    <header>
      <h2>
        {{ lut.name }}
        <span
          v-if="lut.title && lut.title !== lut.name"
          class="quiet"
        >
          {{ lut.title }}
        </span>
      </h2>
      <DownloadLink
        small
        :href="`/api/luts/${lut.hash}/file`"
      >
        {{ text.save }}
      </DownloadLink>
      <ElButton
        size="small"
        :data-tip="text.removeTip"
        @click="emit('remove')"
      >
        {{ text.remove }}
      </ElButton>
    </header>
    <p
      v-if="fault"
      role="alert"
      class="fault"
    >
      ▲ {{ fault }}
    </p>
    <p
      v-else-if="!found"
      class="quiet"
      role="status"
    >
      {{ text.looking }}
    </p>
    <template v-else>
      <div
        class="expects"
        data-testid="lut-expects"
        :data-kind="found.expects.kind"
        :data-certain="found.expects.certain"
      >
        <p
          v-for="s in found.expects.sentences"
          :key="s"
        >
          {{ s }}
        </p>
        <p
          v-if="place"
          class="place"
        >
          <strong>{{ text.place.here }}:</strong>
          {{ place.sentence }}
          <ElButton
            size="small"
            @click="put"
          >
            {{ place.place === 'show' ? text.place.show : text.place.look }}
          </ElButton>
          {{ ' ' }}
          <span
            v-if="said"
            role="status"
            class="quiet"
          >
            {{ said }}
          </span>
        </p>
        <p
          v-else
          class="quiet"
        >
          {{ text.place.noShot }}
        </p>
      </div>
      <div class="body">
        <dl class="facts">
          <template
            v-for="f in facts"
            :key="f.id"
          >
            <dt>
              <span :data-tip="f.tip">{{ f.name }}</span>
            </dt>
            <dd
              class="figures"
              :class="{ warn: f.warn }"
              :data-fact="f.id"
            >
              {{ f.warn ? '▲ ' : '' }}{{ f.value }}
            </dd>
          </template>
        </dl>
        <GreyChart :inspection="found" />
        <WheelChart :inspection="found" />
        <SkinTable :colours="found.colours" />
        <LatticeView
          v-if="table"
          :lut="table"
        />
      </div>
    </template>
  </section>
</template>

<style scoped>
.report {
  display: grid;
  grid-template-rows: auto auto 1fr;
  gap: var(--gap-small);
  min-height: 0;
  min-width: 0;
}
header {
  display: flex;
  gap: var(--gap-broad);
  align-items: baseline;
}
h2 {
  flex: 1;
  font-size: var(--text-large);
  font-weight: 500;
}
h2 span {
  font-size: var(--text);
}
.expects p {
  margin: 2px 0;
}
.expects p:first-child {
  font-size: 15px;
}
.place {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  flex-wrap: wrap;
}
.body {
  display: grid;
  grid-template-columns: minmax(230px, 0.8fr) minmax(0, 1fr) minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: var(--gap) var(--gap-broad);
  min-height: 0;
}
.body > :nth-child(4) {
  grid-column: 1 / 3;
}
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px var(--gap-wide);
  margin: 0;
  align-content: start;
  font-size: 12px;
}
@media (max-width: 1100px) {
  .body {
    grid-template-columns: minmax(190px, 0.8fr) minmax(0, 1fr) minmax(0, 1fr);
    column-gap: var(--gap-wide);
  }
}
dt {
  color: var(--ink-quiet);
}
dd {
  margin: 0;
  font-size: 11px;
  line-height: 18px;
}
.warn,
.fault {
  color: var(--warning);
}
</style>
