<script setup lang="ts">
// Look up: what a data sheet says, and the encodings that fit it.
import { computed, ref } from 'vue'
import { ElInput } from 'element-plus'
import type { EncodingDefinition } from '@core/colour'
import type { CodeRange } from '@core/image'
import { lookUpEncoding, parseSheetValue } from '@core/measure'
import { sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import { useEncodings } from '../../stores/encodings'
import KeepEncoding from './KeepEncoding.vue'
import { text } from './text'

const encodingStore = useEncodings()
const fields = ['black', 'grey', 'white'] as const
const typed = ref<Record<(typeof fields)[number], string>>({ black: '', grey: '', white: '' })
const range = ref<CodeRange>('full')
const ranges = [
  { id: 'full', name: text.lookup.full },
  { id: 'legal', name: text.lookup.legal },
]
const kept = ref('')
const fault = ref('')

const answer = computed(() => {
  try {
    const level = (t: string): number | undefined => (t.trim() === '' ? undefined : parseSheetValue(t, range.value))
    const black = level(typed.value.black)
    const grey = level(typed.value.grey)
    const white90 = level(typed.value.white)
    if (black === undefined && grey === undefined && white90 === undefined)
      return { fault: '', matches: [], fitted: null }
    return {
      fault: '',
      ...lookUpEncoding({
        ...(black === undefined ? {} : { black }),
        ...(grey === undefined ? {} : { grey }),
        ...(white90 === undefined ? {} : { white90 }),
      }),
    }
  } catch (error) {
    return { fault: sentenceOf(error), matches: [], fitted: null }
  }
})
const fittedNumbers = computed(() => {
  const f = answer.value.fitted
  return f
    ? (['a', 'b', 'c', 'd', 'e', 'f', 'cut'] as const).map((k) => `${k} ${Number(f[k]).toPrecision(6)}`).join('   ')
    : ''
})
async function keep(definition: Omit<EncodingDefinition, 'curve' | 'source'>): Promise<void> {
  if (!answer.value.fitted) return
  const { black, grey, white } = typed.value
  try {
    await encodingStore.keep({
      ...definition,
      source: `looked up: black ${black}, grey ${grey}, white ${white}, ${range.value} range`,
      curve: { family: 'lin-log', ...answer.value.fitted },
    })
    kept.value = definition.name
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
</script>

<template>
  <div class="lookup">
    <p class="quiet">{{ text.lookup.intro }}</p>
    <div class="sheet">
      <label
        v-for="f in fields"
        :key="f"
      >
        <span>{{ text.lookup[f] }}</span>
        <ElInput
          v-model="typed[f]"
          size="small"
          :aria-label="text.lookup[f]"
          spellcheck="false"
        />
      </label>
      <PlainSelect
        :label="text.lookup.range"
        :tip="text.lookup.rangeTip"
        :options="ranges"
        :model-value="range"
        @update:model-value="range = $event === 'legal' ? 'legal' : 'full'"
      />
    </div>
    <Notice
      :text="answer.fault"
      @close="typed = { black: '', grey: '', white: '' }"
    />
    <p
      v-if="!answer.fault && answer.matches.length === 0"
      class="quiet"
    >
      {{ text.lookup.nothing }}
    </p>
    <ol
      v-else-if="answer.matches.length"
      class="matches"
    >
      <li
        v-for="m in answer.matches.slice(0, 10)"
        :key="m.encoding.id"
        :class="{ fits: m.withinTolerance }"
      >
        <span>{{ m.encoding.name }}</span>
        <span class="figures">{{ m.errorCodes.toFixed(2) }} {{ text.lookup.codes }}</span>
        <span class="quiet">{{ m.withinTolerance ? text.lookup.within : text.lookup.beyond }}</span>
      </li>
    </ol>
    <section v-if="answer.fitted">
      <p>{{ text.lookup.fitted }}</p>
      <p class="figures">{{ fittedNumbers }}</p>
      <KeepEncoding @keep="keep" />
    </section>
    <p
      v-if="kept"
      role="status"
    >
      {{ text.measure.kept(kept) }}
    </p>
    <Notice
      :text="fault"
      @close="fault = ''"
    />
  </div>
</template>

<style scoped>
.lookup {
  display: grid;
  gap: var(--gap-wide);
  align-content: start;
  max-width: 900px;
  overflow-y: auto;
}
.sheet {
  display: grid;
  grid-template-columns: repeat(3, 1fr) 1.6fr;
  gap: var(--gap-broad);
  align-items: end;
}
label {
  display: grid;
  gap: var(--gap-small);
}
.matches {
  list-style: none;
  margin: 0;
  padding: 0;
}
.matches li {
  display: grid;
  grid-template-columns: 220px 130px 1fr;
  padding: 4px var(--gap);
  border-bottom: var(--line) solid var(--raised);
  color: var(--ink-quiet);
}
.matches li.fits {
  color: var(--ink);
  box-shadow: inset 2px 0 var(--accent);
  background: var(--panel);
}
.matches .figures {
  text-align: right;
  padding-right: var(--gap-broad);
}
p {
  margin: 0;
}
section {
  display: grid;
  gap: var(--gap);
}
</style>
