<script setup lang="ts">
// What is measured on the whole frame, each with its unit and a one-line tip.
import { computed } from 'vue'
import { verdictOf, type HouseStandard } from '@core/index'
import HelpTip from '../../components/HelpTip.vue'
import type { PictureFacts } from '../../workers/messages'
import { percent, readingsOf } from './figures'
import { text } from './text'

const props = defineProps<{ facts: PictureFacts | null; standard: HouseStandard }>()
/** What the house standard wants of a reading, and whether it is met. */
function standing(id: string): { readonly words: string; readonly met: boolean } | null {
  const target = id === 'black' ? props.standard.black : id === 'white' ? props.standard.white : null
  const verdict = props.facts && target && verdictOf(id === 'black' ? props.facts.black : props.facts.white, target)
  return target && verdict ? { words: text.wanted(percent(target.low), percent(target.high), verdict), met: verdict === 'met' } : null
}
const readings = computed(() => (props.facts ? readingsOf(props.facts) : []))
</script>

<template>
  <section class="readings" :aria-label="text.readings">
    <h2><span class="caps">{{ text.readings }}</span> <span class="quiet">{{ text.readingsOf(standard.name) }}</span></h2>
    <dl>
      <template v-for="r in readings" :key="r.id">
        <HelpTip :text="text.readingTips[r.id]"><dt tabindex="0">{{ text.readingNames[r.id] }}</dt></HelpTip>
        <dd class="figures"><span v-if="standing(r.id)" class="standing" :class="{ off: !standing(r.id)?.met }" :data-testid="`standing-${r.id}`">{{ standing(r.id)?.words }}</span><span :data-testid="`reading-${r.id}`">{{ r.value }} <span class="quiet">{{ r.unit }}</span></span></dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.readings { padding: var(--gap) var(--gap-wide); border-left: var(--line) solid var(--hairline); min-height: 0; overflow: hidden; }
h2 { font-size: var(--text); font-weight: 400; display: flex; gap: var(--gap-wide); align-items: baseline; margin-bottom: var(--gap-hair); }
dl { display: grid; grid-template-columns: minmax(100px, auto) 1fr; margin: 0; }
dt, dd { margin: 0; border-bottom: var(--line) solid var(--raised); line-height: 19px; }
dd { text-align: right; }
.standing { float: left; padding-left: var(--gap); color: var(--ink-quiet); font-size: 11px; }
.standing.off { color: var(--warning); }
</style>
