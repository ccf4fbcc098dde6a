<script setup lang="ts">
// One line that asks what a flat picture was written in: three small pictures to choose from in one click, for this
// shot or for all that are like it.
import { computed, ref, watch } from 'vue'
import { encodingById, isEncodingId } from '@core/colour'
import type { ShotChanges } from '@contracts/requests'
import type { ShotSummary } from '@contracts/responses'
import { readAsAddress, thumbnailAddress } from '../../api/thumbnail'
import { text } from './asked'

const props = defineProps<{
  shot: ShotSummary
  /** Other shots that it is asked of too and that are of such files. */
  likeIt: readonly string[]
  /** Said where the shot is not plain from its place. */
  named?: boolean
}>()
const emit = defineEmits<{ settle: [change: Omit<ShotChanges, 'shotIds'>, ids: readonly string[]] }>()

const withOthers = ref(true)
watch(
  () => props.shot.id,
  () => {
    withOthers.value = true
  },
)
const picture = computed(() => ({ ...props.shot, revisionId: props.shot.headId, frame: props.shot.leadFrame }))
const usual = computed(() => {
  const { usualReading } = props.shot
  if (!usualReading) return null
  const { encodingId, own, shots } = usualReading
  if (!own && !isEncodingId(encodingId)) return null
  return { encodingId, words: text.usual(shots, own?.name ?? encodingById(encodingId).name) }
})
const settle = (change: Omit<ShotChanges, 'shotIds'>): void =>
  emit('settle', change, [props.shot.id, ...(withOthers.value ? props.likeIt : [])])
const readAs = (encodingId: string): void => settle({ read: { encodingId } })
</script>

<template>
  <section
    class="asked"
    :aria-label="text.asks"
  >
    <div class="words">
      <strong>{{ named ? text.asksOf(shot.name) : text.asks }}</strong>
      <span class="quiet">{{ text.why }}</span>
      <button
        v-if="usual"
        :data-tip="text.usualTip"
        type="button"
        class="usual"
        @click="readAs(usual.encodingId)"
      >
        {{ usual.words }}
      </button>
      <RouterLink
        :data-tip="text.estimateTip"
        class="estimate"
        :to="{ name: 'cameras', params: { part: 'estimate' }, query: { shot: shot.id } }"
      >
        {{ text.estimate }}
      </RouterLink>
      <label
        v-if="likeIt.length"
        class="others"
      >
        <input
          v-model="withOthers"
          type="checkbox"
        />
        {{ text.others(likeIt.length) }}
      </label>
    </div>
    <button
      v-for="offer in shot.guess?.opening.offers ?? []"
      :key="offer.encodingId"
      type="button"
      class="offer"
      :aria-label="text.readAs(offer.name)"
      @click="readAs(offer.encodingId)"
    >
      <img
        :src="readAsAddress(picture, offer.encodingId)"
        alt=""
      />
      <span class="name">
        {{ offer.name }}
        <span class="figures">{{ text.share(offer.probability) }}</span>
      </span>
    </button>
    <button
      :data-tip="text.staysTip"
      type="button"
      class="offer"
      @click="settle({ staysAsItLooks: true })"
    >
      <img
        :src="thumbnailAddress({ ...picture, as: 'graded' })"
        alt=""
      />
      <span class="name">{{ text.stays }}</span>
    </button>
  </section>
</template>

<style scoped>
.asked {
  display: flex;
  gap: var(--gap);
  align-items: center;
  padding: var(--gap-small) var(--gap-wide);
  background: var(--raised);
  border-bottom: var(--line) solid var(--hairline);
}
.words {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-small) var(--gap);
}
.words .quiet {
  flex-basis: 100%;
  font-size: 12px;
}
.usual {
  background: none;
  border: var(--line) solid var(--accent);
  border-radius: var(--radius);
  min-height: var(--control);
  padding: 2px var(--gap);
}
.others {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
  min-height: var(--control);
}
.offer {
  display: grid;
  gap: 2px;
  padding: 2px;
  width: 112px;
  background: none;
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
  text-align: left;
}
.offer:hover {
  border-color: var(--accent);
}
.offer img {
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: contain;
  background: var(--well);
}
.name {
  display: flex;
  justify-content: space-between;
  gap: var(--gap-small);
  font-size: 11px;
  white-space: nowrap;
  overflow: hidden;
}
</style>
