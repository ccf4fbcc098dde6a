<!-- Long: the settings of one motion, under each other. -->

<script setup lang="ts">
// How the chosen shape follows the picture: tracking with its quality along the clip, keyframes by hand, and where it
// is hidden.
import { computed } from 'vue'
import type { NumberParameter } from '@core/grade'
import {
  lastTracked,
  motionLimits,
  trackKinds,
  withKeyframe,
  withShown,
  withoutKeyframe,
  noMotionYet,
  type Motion,
  type TrackKind,
} from '@core/regions'
import PlainSelect from '../../../components/PlainSelect.vue'
import ScaleControl from '../../../components/ScaleControl.vue'
import { useRegions } from '../../../stores/regions'
import { useTracking } from '../../../stores/tracking'
import { useView } from '../../../stores/view'
import MotionStrip from './MotionStrip.vue'
import { text } from '../text'

const props = defineProps<{ firstFrame: number }>()
defineEmits<{ go: [frame: number] }>()
const regions = useRegions()
const tracking = useTracking()
const view = useView()
const { motion: words } = text.regions
const motion = computed<Motion | null>(() => regions.shape?.motion ?? null)
const shown = (frame: number): number => frame - props.firstFrame
const keyed = computed(() => motion.value?.keys.some((k) => k.frame === view.frame) ?? false)
const hiddenHere = computed(() => (regions.handled?.source.presence ?? 1) < 0.5)
const changesHere = computed(() => motion.value?.shown.some((s) => s.frame === view.frame) ?? false)
const set = (what: string, change: Partial<Motion>): void =>
  regions.editShape(what, (s) => ({ ...s, motion: { ...(s.motion ?? noMotionYet(regions.aspect)), ...change } }))
const fade: NumberParameter = {
  type: 'number',
  label: words.fade,
  tip: words.fadeTip,
  unit: '',
  ...motionLimits.fadeFrames,
  scale: [0, 24],
  default: 4,
  step: 1,
  decimals: 0,
}
const status = computed(() => {
  const track = motion.value?.track
  if (tracking.running) return words.running(Math.round(tracking.share * 100), Math.round(tracking.framesPerSecond))
  if (tracking.stopped) return words.stopped(shown(tracking.stopped.frame), tracking.stopped.why)
  return track ? words.tracked(shown(track.first), shown(lastTracked(track)), shown(track.reference)) : words.untracked
})
const noProxy = computed(() => !tracking.clip?.medium.proxy)
</script>

<template>
  <p
    v-if="!regions.shape"
    class="quiet"
  >
    {{ words.noShape }}
  </p>
  <div
    v-else
    class="motion"
  >
    <div class="row">
      <PlainSelect
        :label="words.follow"
        :tip="words.followTip"
        :options="trackKinds"
        :model-value="tracking.kind"
        @update:model-value="tracking.kind = $event as TrackKind"
      />
      <template v-if="!tracking.running">
        <button
          v-for="d in ['backward', 'both', 'forward'] as const"
          :key="d"
          :data-tip="words.startTip"
          type="button"
          :disabled="noProxy"
          :data-testid="`track-${d}`"
          @click="tracking.start(d)"
        >
          {{ words.start[d] }}
        </button>
      </template>
      <button
        v-else
        type="button"
        data-testid="track-cancel"
        @click="tracking.cancel"
      >
        {{ words.cancel }}
      </button>
      <button
        :data-tip="words.excludeTip"
        type="button"
        :aria-pressed="tracking.painting"
        @click="tracking.painting = !tracking.painting"
      >
        {{ words.exclude(tracking.excluded.length) }}
      </button>
      <button
        v-if="tracking.excluded.length"
        type="button"
        @click="tracking.excluded = []"
      >
        {{ words.include }}
      </button>
      <button
        v-if="motion"
        :data-tip="words.stillTip"
        type="button"
        @click="regions.still"
      >
        {{ words.still }}
      </button>
    </div>
    <MotionStrip
      v-if="tracking.clip"
      :motion="motion"
      :first="tracking.clip.first"
      :last="tracking.clip.last"
      :frame="view.frame"
      :stopped="tracking.stopped?.frame ?? null"
      @go="$emit('go', $event)"
    />
    <p
      class="status figures"
      :class="{ warning: tracking.stopped }"
      role="status"
      data-testid="track-status"
    >
      {{ tracking.stopped ? '▲ ' : '' }}{{ status }}
      <template
        v-if="
          motion?.track &&
          !tracking.running &&
          view.frame >= lastTracked(motion.track) &&
          lastTracked(motion.track) < (tracking.clip?.last ?? 0)
        "
      >
        <button
          :data-tip="words.goOnTip"
          type="button"
          data-testid="track-go-on"
          @click="tracking.goOn"
        >
          {{ words.goOn(shown(view.frame)) }}
        </button>
        <button
          :data-tip="words.byHandTip"
          type="button"
          @click="tracking.byHand"
        >
          {{ words.byHand }}
        </button>
        <button
          :data-tip="words.bridgeTip"
          type="button"
          :disabled="view.frame === lastTracked(motion.track)"
          @click="tracking.bridge"
        >
          {{ words.bridge }}
        </button>
      </template>
    </p>
    <div class="row">
      <button
        :data-tip="words.keyTip"
        v-if="!keyed"
        type="button"
        data-testid="keyframe"
        @click="regions.editShape('keyframe', (s) => withKeyframe(s, view.frame, regions.aspect))"
      >
        {{ words.key(shown(view.frame)) }}
      </button>
      <button
        :data-tip="words.keyTip"
        v-else
        type="button"
        data-testid="keyframe"
        @click="regions.editShape('keyframe removed', (s) => withoutKeyframe(s, view.frame))"
      >
        {{ words.unkey(shown(view.frame)) }}
      </button>
      <template v-if="motion && motion.keys.length > 1">
        <button
          :data-tip="words.pathTip"
          type="button"
          @click="set('way between keyframes', { path: motion.path === 'smooth' ? 'linear' : 'smooth' })"
        >
          {{ words.path[motion.path] }}
        </button>
        <button
          :data-tip="words.rollTip"
          type="button"
          :aria-pressed="motion.roll"
          @click="set('rolls', { roll: !motion.roll })"
        >
          {{ words.roll }}
        </button>
      </template>
      <button
        :data-tip="words.hideTip"
        type="button"
        data-testid="hide"
        @click="
          regions.editShape(hiddenHere ? 'seen again' : 'hidden', (s) => withShown(s, view.frame, regions.aspect))
        "
      >
        {{
          changesHere
            ? words.unhide(shown(view.frame))
            : hiddenHere
              ? words.show(shown(view.frame))
              : words.hide(shown(view.frame))
        }}
      </button>
      <ScaleControl
        v-if="motion?.shown.length"
        :parameter="fade"
        :model-value="motion.fadeFrames"
        data-control="fadeFrames"
        @update:model-value="set('fade', { fadeFrames: Math.round($event) })"
      />
    </div>
  </div>
</template>

<style scoped>
.motion {
  display: grid;
  gap: var(--gap-hair);
  align-content: start;
  min-height: 0;
}
.row,
.status {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  white-space: nowrap;
  font-size: 12px;
}
.status {
  margin: 0;
  min-height: var(--control);
}
.row :deep(.choice) {
  grid-template-columns: auto 150px;
}
.row :deep(.control) {
  grid-template-columns: 48px 90px 40px 10px;
}
.row :deep(.effect) {
  display: none;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
button:disabled {
  color: var(--hairline-strong);
}
button[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.warning {
  color: var(--warning);
}
p {
  margin: 0;
}
</style>
