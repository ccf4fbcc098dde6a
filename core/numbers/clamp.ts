// Numbers held within bounds.

/** `value`, but no less than `low` and no more than `high`. */
export const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value))

/** A share: 0..1. */
export const clamp01 = (value: number): number => Math.min(1, Math.max(0, value))
