// Medians and percentiles of measured times.

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN
}

export const median = (values: readonly number[]): number => quantile(values, 0.5)

/** Runs `work` a few times to warm up, then `runs` times, and returns each run's milliseconds. */
export function timed(runs: number, work: () => void): number[] {
  for (let i = 0; i < 3; i++) work()
  return Array.from({ length: runs }, () => {
    const start = performance.now()
    work()
    return performance.now() - start
  })
}
