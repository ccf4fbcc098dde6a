// The order in which waiting tasks get a thread: first what a person looks at, then what one asked for, then what goes
// on by itself; among equals, as they came.
import { queueOptionsSymbol, type TaskQueue } from 'piscina'

export const urgencies = ['seen', 'asked', 'byItself'] as const
export type Urgency = (typeof urgencies)[number]

type Task = Parameters<TaskQueue['push']>[0]

const urgencyOf = (task: Task): Urgency =>
  (task[queueOptionsSymbol] as { readonly urgency?: Urgency } | null)?.urgency ?? 'asked'

/** A task with its urgency, as the pool takes it. */
export const withUrgency = <T extends object>(task: T, urgency: Urgency): T => ({
  ...task,
  [queueOptionsSymbol]: { urgency },
})

/** A queue for the pool. */
export class UrgentFirst implements TaskQueue {
  readonly #lanes: Readonly<Record<Urgency, Task[]>> = { seen: [], asked: [], byItself: [] }

  get size(): number {
    return urgencies.reduce((sum, urgency) => sum + this.#lanes[urgency].length, 0)
  }
  shift(): Task | null {
    for (const urgency of urgencies) {
      const first = this.#lanes[urgency].shift()
      if (first) return first
    }
    return null
  }
  push(task: Task): void {
    this.#lanes[urgencyOf(task)].push(task)
  }
  /** Puts a task back at the head. */
  unshift(task: Task): void {
    this.#lanes[urgencyOf(task)].unshift(task)
  }
  remove(task: Task): void {
    const lane = this.#lanes[urgencyOf(task)]
    const at = lane.indexOf(task)
    if (at >= 0) lane.splice(at, 1)
  }
}
