<!-- Long: the layers over the picture share its place and its zoom. -->

<script setup lang="ts">
// The picture: a canvas that finished pixels are put on, and over it the lit pixels, the measured part, the chosen
// region, and numbers.
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { DrawnPart, OverlaySettings, PlaceColour, Probe, TraceImage } from '@core/instruments'
import type { Area } from '@core/readings'
import { putImage } from '../../../composables/putImage'
import type { CompareMode, Surround, Wipe } from '../../../stores/view'
import { usePicking } from '../../../stores/picking'
import { text } from '../text'
import ComparePicture from './ComparePicture.vue'
import GammaFilter from './GammaFilter.vue'
import OverlayLegend from './OverlayLegend.vue'
import PartOverlay from './PartOverlay.vue'
import PickLayer from './PickLayer.vue'
import ProbeReadout from './ProbeReadout.vue'
import DrawLayer from '../regions/DrawLayer.vue'
import PaintLayer from '../regions/PaintLayer.vue'
import RegionOverlay from '../regions/RegionOverlay.vue'
import { useRegions } from '../../../stores/regions'
import { useTracking } from '../../../stores/tracking'
import { useZoom } from './useZoom'

const props = defineProps<{
  picture: TraceImage | null
  surround: Surround
  /** The open region's shapes are on the picture. */ regional: boolean
  aspect: number
  fault: string
  label: string
  settled: boolean
  note: string
  /** Raises the signal to this power for the look alone; 1 leaves it. */ exponent: number
  frame: number | null
  lit: TraceImage | null
  litNote: string
  part: DrawnPart | null
  card: DrawnPart | null
  subjects: readonly (Omit<DrawnPart, 'kind'> & { readonly name: string })[]
  probe: Probe | null
  overlay: OverlaySettings | null
  colourAt: (x: number, y: number) => Promise<PlaceColour | null>
  still: { readonly image: TraceImage; readonly name: string } | null
  compare: CompareMode
  wipe: Wipe
}>()
defineEmits<{
  sample: [mode: 'add' | 'remove', area: Area]
  part: [part: DrawnPart | null]
  point: [place: { readonly x: number; readonly y: number } | null]
  zebra: [band: { low: number; high: number }]
  wipe: [wipe: Wipe]
}>()

const picking = usePicking()
const regions = useRegions()
const tracking = useTracking()
const canvas = ref<HTMLCanvasElement | null>(null)
const litCanvas = ref<HTMLCanvasElement | null>(null)
watch([() => props.picture, canvas], ([picture, target]) => {
  if (picture && target) putImage(target, picture)
})
watch(
  [() => props.lit, litCanvas],
  ([lit, target]) => {
    if (lit && target) putImage(target, lit)
  },
  { flush: 'post' },
)
const { factor, transform, wheel, grab, pan, drop } = useZoom(
  useTemplateRef<HTMLElement>('stage'),
  () => props.picture?.width ?? 960,
  () => props.aspect,
)
const place = computed(() => ({ aspectRatio: String(props.aspect) }))
</script>

<template>
  <div
    ref="stage"
    class="stage"
    :class="surround"
    @wheel="wheel"
    @pointerdown="grab"
    @pointermove="pan"
    @pointerup="drop"
    @pointercancel="drop"
  >
    <GammaFilter :exponent="exponent" />
    <div
      class="frame"
      :class="{ side: still && compare === 'side', seen: exponent !== 1, large: factor > 2 }"
      :style="{ ...place, transform }"
    >
      <canvas
        ref="canvas"
        role="img"
        :aria-label="label"
        data-testid="picture"
        :data-settled="settled"
        :data-frame="frame"
      />
      <canvas
        v-show="lit"
        ref="litCanvas"
        class="lit"
        aria-hidden="true"
        data-testid="lit"
        :data-lit="lit !== null"
      />
      <PartOverlay
        v-if="picture && !(still && compare === 'side')"
        :part="part"
        :card="card"
        :subjects="subjects"
        @part="$emit('part', $event)"
        @point="$emit('point', $event)"
      />
      <ComparePicture
        v-if="still && compare !== 'off'"
        :still="still"
        :mode="compare"
        :wipe="wipe"
        :aspect="aspect"
        @wipe="$emit('wipe', $event)"
      />
      <p
        v-if="fault"
        class="word"
        role="alert"
      >
        ▲ {{ fault }}
      </p>
      <p
        v-else-if="!picture"
        class="word quiet"
      >
        {{ text.loading }}
      </p>
      <p
        v-if="litNote"
        class="note above"
        role="status"
        data-testid="lit-note"
      >
        {{ litNote }}
      </p>
      <p
        v-if="note"
        class="note"
        role="status"
        data-testid="mapped"
      >
        {{ note }}
      </p>
      <RegionOverlay
        v-if="regional && regions.onPicture && picture"
        :region="regions.onPicture"
        :handled="regions.handled"
        :aspect="aspect"
        :zoom="factor"
        @shape="regions.setShape"
        @softness="regions.setSoftness"
      />
      <DrawLayer
        v-if="regional && picture && (regions.drawing || regions.sampling)"
        @sample="(mode, area) => $emit('sample', mode, area)"
      />
      <PaintLayer v-if="regional && picture && (tracking.painting || tracking.excluded.length)" />
      <PickLayer
        v-if="picking.picker && picture"
        :colour-at="colourAt"
      />
      <OverlayLegend
        v-if="overlay"
        :overlay="overlay"
        @zebra="$emit('zebra', $event)"
      />
      <ProbeReadout
        v-if="probe"
        :probe="probe"
      />
    </div>
  </div>
</template>

<style scoped>
.stage {
  display: grid;
  place-items: center;
  min-height: 0;
  min-width: 0;
  height: 100%;
  container-type: size;
  overflow: hidden;
}
.stage.black {
  background: var(--surround-black);
}
.stage.grey {
  background: var(--surround-grey);
}
.stage.white {
  background: var(--surround-white);
}
.frame {
  position: relative;
  width: 100%;
  max-height: 100%;
  max-width: calc(100cqh * v-bind('aspect'));
}
/* Single pixels are to be seen as such. */
.large > canvas {
  image-rendering: pixelated;
}
canvas {
  display: block;
  width: 100%;
  height: 100%;
  background: var(--well);
}
.seen > canvas:first-child {
  filter: url('#other-gamma');
}
.seen :deep(.compare canvas) {
  filter: url('#other-gamma');
}
.side > canvas {
  width: 50%;
  height: 50%;
  margin: calc(50% / v-bind('aspect') / 2) 0 0 50%;
}
.lit {
  position: absolute;
  inset: 0;
  background: none;
  pointer-events: none;
}
.note {
  position: absolute;
  left: var(--gap);
  bottom: var(--gap);
  margin: 0;
  padding: 0 var(--gap-small);
  background: var(--well);
  font-size: var(--text-small);
  pointer-events: none;
}
.note.above {
  bottom: auto;
  top: var(--gap);
  right: var(--gap);
  left: auto;
}
.word {
  position: absolute;
  inset: auto 0 45% 0;
  text-align: center;
  margin: 0;
  pointer-events: none;
}
</style>
