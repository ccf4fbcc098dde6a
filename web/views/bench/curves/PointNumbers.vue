<script setup lang="ts">
// The chosen point of a curve as two numbers that can be typed.
const props = defineProps<{
  x: number
  y: number
  xLabel: string
  yLabel: string
  unit: string
  yUnit: string
  decimals: number
}>()
const emit = defineEmits<{ set: [to: { readonly x: number; readonly y: number }] }>()
const shown = (v: number): string => v.toFixed(props.decimals)
function typed(axis: 'x' | 'y', event: Event): void {
  const input = event.target as HTMLInputElement
  const value = Number(input.value.replace('−', '-').replace(',', '.'))
  if (input.value.trim() !== '' && Number.isFinite(value)) emit('set', { x: props.x, y: props.y, [axis]: value })
  input.value = shown(props[axis])
}
</script>

<template>
  <span class="numbers">
    <label>
      {{ xLabel }}
      <input
        class="figures"
        :value="shown(x)"
        inputmode="decimal"
        data-testid="point-x"
        @change="typed('x', $event)"
      />
      {{ unit }}
    </label>
    <label>
      {{ yLabel }}
      <input
        class="figures"
        :value="shown(y)"
        inputmode="decimal"
        data-testid="point-y"
        @change="typed('y', $event)"
      />
      {{ yUnit }}
    </label>
  </span>
</template>

<style scoped>
.numbers {
  display: flex;
  gap: var(--gap);
  color: var(--ink-quiet);
}
input {
  width: 52px;
  background: var(--well);
  color: var(--ink);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  text-align: right;
  padding: 0 3px;
  min-height: 20px;
  font-size: 11px;
}
</style>
