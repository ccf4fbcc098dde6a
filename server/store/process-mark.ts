// Which process something belongs to, and whether that process is still there. A number alone would not do: it is
// given out again.
import { readFileSync } from 'node:fs'

/** When a process began, in the kernel's ticks (proc(5), stat, field 22); undefined when it is gone. */
function startOf(pid: number): string | undefined {
  try {
    // The name in the second field may hold spaces and brackets.
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]
  } catch {
    return undefined
  }
}

/** `number-start`: no other process ever has the same until the machine starts anew. */
export const ownMark = `${process.pid}-${startOf(process.pid) ?? '0'}`

/** Whether the process with this mark still runs. What is no mark belongs to nobody. */
export function isRunning(mark: string): boolean {
  const [pid, start] = /^(\d+)-(\d+)$/.exec(mark)?.slice(1) ?? []
  return pid !== undefined && startOf(Number(pid)) === start
}
