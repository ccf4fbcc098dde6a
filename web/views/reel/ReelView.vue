<script setup lang="ts">
// The Reel: every shot of a project with its lead frame as shot and as graded; clips are added here.
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ElButton } from 'element-plus'
import { encodingOf } from '@core/index'
import type { ShotSummary } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import AppHeader from '../../components/AppHeader.vue'
import HelpTip from '../../components/HelpTip.vue'
import Notice from '../../components/Notice.vue'
import { useLibrary } from '../../stores/library'
import { text } from './text'
import { useClipImport } from './useClipImport'

const props = defineProps<{ projectId: string }>()
const library = useLibrary()
const router = useRouter()
const fault = ref('')
const over = ref(false)
const picker = ref<HTMLInputElement | null>(null)
const imports = useClipImport(() => props.projectId, () => library.loadReel(props.projectId))

watch(() => props.projectId, async (id) => {
  try {
    await library.loadReel(id)
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}, { immediate: true })

const thumbnail = (shot: ShotSummary, as: 'shot' | 'graded'): string => `/api/revisions/${shot.headId}/thumbnail?frame=${shot.leadFrame}&as=${as}`
const length = ({ media }: ShotSummary): string => `${media.frameCount} frames · ${((media.frameCount * media.rateDenominator) / media.rateNumerator).toFixed(1)} s`
const rate = ({ media }: ShotSummary): string => `${Number((media.rateNumerator / media.rateDenominator).toFixed(3))} fps`
const source = ({ media }: ShotSummary): string => `${media.bitDepth} bit · ${media.chroma} · ${media.range} range`

function picked(event: Event): void {
  const input = event.target as HTMLInputElement
  imports.add([...(input.files ?? [])])
  input.value = ''
}
function dropped(event: DragEvent): void {
  over.value = false
  imports.add([...(event.dataTransfer?.files ?? [])])
}
const open = (shot: ShotSummary): void => void router.push({ name: 'bench', params: { shotId: shot.id } })
</script>

<template>
  <AppHeader :project="library.reel?.project" />
  <main class="reel" :class="{ over }" @dragover.prevent="over = true" @dragleave.self="over = false" @drop.prevent="dropped">
    <div class="top">
      <h1>{{ text.title }}</h1>
      <span class="quiet">{{ text.drop }}</span>
      <input ref="picker" class="visually-hidden" type="file" multiple accept="video/*,.mov,.mp4,.mkv,.mxf,.avi,.webm" tabindex="-1" aria-label="Video files" @change="picked" />
      <ElButton @click="picker?.click()">{{ text.add }}</ElButton>
    </div>
    <Notice :text="fault" @close="fault = ''" />
    <ul v-if="imports.running.value.length" class="imports" aria-label="Imports">
      <li v-for="item in imports.running.value" :key="item.key">
        <template v-if="item.fault"><Notice :text="item.fault" @close="imports.forget(item.key)" /></template>
        <template v-else>
          <span>{{ item.name }}</span> <span class="quiet figures">{{ text.sending(item.share) }}</span>
          <ElButton size="small" @click="item.cancel()">{{ text.cancel }}</ElButton>
        </template>
      </li>
    </ul>
    <p v-if="library.reel && library.reel.shots.length === 0" class="quiet">{{ text.empty }}</p>
    <table v-if="library.reel?.shots.length">
      <thead>
        <tr class="caps">
          <th><HelpTip :text="text.tips.asShot"><span>{{ text.columns.asShot }}</span></HelpTip></th>
          <th><HelpTip :text="text.tips.graded"><span>{{ text.columns.graded }}</span></HelpTip></th>
          <th>{{ text.columns.name }}</th>
          <th><HelpTip :text="text.tips.encoding"><span>{{ text.columns.camera }}</span></HelpTip></th>
          <th><HelpTip :text="text.tips.source"><span>{{ text.columns.source }}</span></HelpTip></th>
          <th>{{ text.columns.frames }}</th>
          <th>{{ text.columns.state }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="shot in library.reel.shots" :key="shot.id" @click="open(shot)">
          <td><img :src="thumbnail(shot, 'shot')" :alt="`${shot.name} as shot`" width="192" height="108" loading="lazy" /></td>
          <td><img :src="thumbnail(shot, 'graded')" :alt="`${shot.name} as graded`" width="192" height="108" loading="lazy" /></td>
          <td><RouterLink :to="{ name: 'bench', params: { shotId: shot.id } }" @click.stop>{{ shot.name }}</RouterLink><br /><span class="quiet">{{ shot.scene ?? '' }}</span></td>
          <td>{{ encodingOf(shot.read).name }}<br /><span class="quiet">{{ shot.cameraName ?? '' }}</span></td>
          <td class="figures">{{ shot.media.width }}×{{ shot.media.height }} · {{ rate(shot) }}<br /><span class="quiet">{{ source(shot) }}</span></td>
          <td class="figures">{{ length(shot) }}</td>
          <td class="figures">{{ shot.revisionDepth === 1 ? text.untouched : text.revisions(shot.revisionDepth - 1) }}</td>
        </tr>
      </tbody>
    </table>
  </main>
</template>

<style scoped>
.reel { padding: var(--gap-broad); display: grid; gap: var(--gap-wide); align-content: start; min-height: calc(100% - var(--header)); border: 2px solid transparent; }
.reel.over { border-color: var(--accent); }
.top { display: flex; align-items: center; gap: var(--gap-broad); }
.top .quiet { flex: 1; }
h1 { font-size: var(--text-title); }
.imports { list-style: none; margin: 0; padding: 0; display: grid; gap: var(--gap-small); }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-weight: 400; color: var(--ink-quiet); padding: var(--gap-small) var(--gap-wide) var(--gap) 0; border-bottom: var(--line) solid var(--hairline); }
td { padding: var(--gap) var(--gap-wide) var(--gap) 0; border-bottom: var(--line) solid var(--hairline); line-height: 1.6; }
td img { display: block; width: 192px; height: 108px; object-fit: cover; background: var(--well); }
tbody tr { cursor: pointer; }
tbody tr:hover { background: var(--veil); }
td a { font-size: var(--text-large); text-decoration: none; }
td .figures, td.figures { font-size: 12px; }
</style>
