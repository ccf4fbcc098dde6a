// What other machines on the same host took of this one's processors: speed that was measured meanwhile is that much
// less sure.
import { readFileSync } from 'node:fs'

interface Ticks {
  readonly all: number
  readonly stolen: number
}

/** From /proc/stat, see proc(5): user, nice, system, idle, iowait, irq, softirq, steal; null where there is none. */
function ticks(): Ticks | null {
  try {
    const [first = ''] = readFileSync('/proc/stat', 'utf8').split('\n')
    const counts = first.trim().split(/\s+/).slice(1, 9).map(Number)
    return counts.length === 8 ? { all: counts.reduce((a, b) => a + b, 0), stolen: counts[7] ?? 0 } : null
  } catch {
    return null
  }
}

/** Asked at the end, says the share of all processor time since then that was taken, 0..1; null where nobody tells. */
export function watchStolen(): () => number | null {
  const before = ticks()
  return () => {
    const after = ticks()
    if (!before || !after || after.all === before.all) return null
    return (after.stolen - before.stolen) / (after.all - before.all)
  }
}
