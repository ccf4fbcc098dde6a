<script setup lang="ts">
// The filter `#other-gamma`: raises the signal to a power, for the look alone. There is none where the power is 1.
defineProps<{ exponent: number }>()
</script>

<template>
  <svg
    v-if="exponent !== 1"
    aria-hidden="true"
  >
    <filter
      id="other-gamma"
      color-interpolation-filters="sRGB"
    >
      <feComponentTransfer>
        <feFuncR
          type="gamma"
          :exponent="exponent"
        />
        <feFuncG
          type="gamma"
          :exponent="exponent"
        />
        <feFuncB
          type="gamma"
          :exponent="exponent"
        />
      </feComponentTransfer>
    </filter>
  </svg>
</template>

<style scoped>
svg {
  position: absolute;
  width: 0;
  height: 0;
}
</style>
