<script setup lang="ts">
// Cameras: encodings as they are, looked up, measured, and compared on a frame.
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { sentenceOf } from '../../api/client'
import AppHeader from '../../components/AppHeader.vue'
import HelpTip from '../../components/HelpTip.vue'
import Notice from '../../components/Notice.vue'
import { useGrade } from '../../stores/grade'
import { useLibrary } from '../../stores/library'
import ComparePanel from './ComparePanel.vue'
import EncodingsPanel from './EncodingsPanel.vue'
import LookupPanel from './LookupPanel.vue'
import MeasurePanel from './MeasurePanel.vue'
import { text } from './text'

const props = defineProps<{ part: string }>()
const library = useLibrary()
const grade = useGrade()
const route = useRoute()
const router = useRouter()
const fault = ref('')
const parts = ['encodings', 'lookup', 'measure', 'compare'] as const
const here = computed(() => parts.find((p) => p === props.part) ?? 'encodings')
const shotId = computed(() => (typeof route.query['shot'] === 'string' ? route.query['shot'] : null))
const shot = computed(() => (library.shot?.id === shotId.value ? library.shot : null))
const frame = computed(() => {
  const asked = Number(route.query['frame'] ?? shot.value?.leadFrame ?? 0)
  return Number.isInteger(asked) && asked >= 0 && shot.value && asked < shot.value.media.frameCount ? asked : (shot.value?.leadFrame ?? 0)
})

onMounted(() => void library.loadEncodings().catch((error: unknown) => { fault.value = sentenceOf(error) }))
watch(shotId, async (id) => {
  if (id === null || library.shot?.id === id) return
  try {
    await grade.commit()
    grade.open(await library.openShot(id))
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}, { immediate: true })

const choose = (id: string): void => void router.replace({ query: { shot: id } })
const toFrame = (n: number): void => void router.replace({ query: { ...route.query, frame: n } })
</script>

<template>
  <div class="page">
    <AppHeader :project="shot ? { id: shot.projectId, name: shot.projectName } : undefined" :shot="shot" />
    <main>
      <nav class="parts" :aria-label="text.title">
        <HelpTip v-for="p in parts" :key="p" :text="text.partTips[p]">
          <RouterLink class="caps" :class="{ here: p === here }" :aria-current="p === here ? 'page' : undefined" :to="{ name: 'cameras', params: { part: p }, query: route.query }">{{ text.parts[p] }}</RouterLink>
        </HelpTip>
      </nav>
      <Notice :text="fault" @close="fault = ''" />
      <EncodingsPanel v-if="here === 'encodings'" />
      <LookupPanel v-else-if="here === 'lookup'" />
      <MeasurePanel v-else-if="here === 'measure'" :shot="shot" :frame="frame" @choose="choose" @frame="toFrame" />
      <ComparePanel v-else :shot="shot" :frame="frame" @choose="choose" />
    </main>
  </div>
</template>

<style scoped>
.page { height: 100%; display: grid; grid-template-rows: auto 1fr; }
main { display: grid; grid-template-rows: auto auto 1fr; padding: 0 var(--gap-wide) var(--gap-wide); gap: var(--gap); min-height: 0; overflow: hidden; }
main > :last-child { grid-row: 3; min-height: 0; }
.parts { display: flex; gap: var(--gap-broad); padding-top: var(--gap-wide); }
.parts a { text-decoration: none; color: var(--ink-quiet); padding-bottom: var(--gap-small); border-bottom: 2px solid transparent; }
.parts a:hover { color: var(--ink); }
.parts a.here { color: var(--ink); border-bottom-color: var(--accent); }
</style>
