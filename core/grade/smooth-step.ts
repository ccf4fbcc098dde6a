// A smooth way from nothing to everything.

/** 0 up to `from`, 1 from `to` on, a cubic between (C1). `from` may lie above `to`. */
export function smoothStep(from: number, to: number, value: number): number {
  const t = Math.min(1, Math.max(0, (value - from) / (to - from)))
  return t * t * (3 - 2 * t)
}
