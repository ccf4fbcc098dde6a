<script setup lang="ts">
// One picture of a contact sheet, with its facts.
import { ref, watch } from 'vue'
import { printNumber } from '@core/numbers'
import { putImage } from '../../composables/putImage'
import { text } from './text'
import type { Seen } from '../../composables/useContactSheet'

const props = defineProps<{ name: string; note: string; seen: Seen | undefined; held?: string; large?: boolean }>()
const canvas = ref<HTMLCanvasElement | null>(null)
watch(
  [() => props.seen, canvas],
  ([seen, target]) => {
    if (seen && target && !('fault' in seen)) putImage(target, seen.image)
  },
  { flush: 'post' },
)
const signed = (value: number, digits: number): string => printNumber(value, digits, true)
</script>

<template>
  <figure
    class="tile"
    :class="{ large }"
    :data-tile="name"
    :data-seen="seen !== undefined"
  >
    <div class="picture">
      <canvas
        ref="canvas"
        width="192"
        height="108"
        role="img"
        :aria-label="name"
      />
      <span
        v-if="held"
        class="mark figures"
      >
        {{ held }}
      </span>
    </div>
    <figcaption>
      <span class="name">{{ name }}</span>
      {{ ' ' }}
      <span class="quiet note">{{ note }}</span>
      <span
        v-if="seen && 'fault' in seen"
        class="fault"
      >
        ▲ {{ seen.fault }}
      </span>
      <span
        v-else-if="seen"
        class="figures quiet line"
      >
        {{
          text.sheet.facts(
            seen.facts.contrastPercent.toFixed(0),
            signed(seen.facts.warmthStops, 2),
            seen.facts.saturation.toFixed(1),
          )
        }}
        <template v-if="seen.facts.skin">· {{ text.sheet.skin(signed(seen.facts.skin.hueDegrees, 1)) }}</template>
      </span>
      <span
        v-else
        class="figures quiet line"
      >
        &nbsp;
      </span>
    </figcaption>
  </figure>
</template>

<style scoped>
/* What is out of view is neither laid out nor drawn until it comes. */
.tile {
  margin: 0;
  min-width: 0;
  display: grid;
  gap: 2px;
  cursor: default;
  content-visibility: auto;
  contain-intrinsic-block-size: auto 146px;
}
.tile:focus-visible,
.tile[aria-selected='true']:focus {
  outline: 2px solid var(--accent);
  outline-offset: 1px;
}
.picture {
  position: relative;
}
canvas {
  display: block;
  width: 100%;
  height: auto;
  background: var(--well);
}
.mark {
  position: absolute;
  left: 4px;
  top: 4px;
  background: rgb(0 0 0 / 70%);
  padding: 0 5px;
  font-size: 11px;
}
figcaption {
  font-size: 11px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  column-gap: 4px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.note {
  font-size: 10px;
}
.line,
.fault {
  grid-column: 1 / -1;
  font-size: 10px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.fault {
  color: var(--warning);
}
</style>
