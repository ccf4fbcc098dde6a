// The order in which waiting tasks get a thread: first what a person looks at, then what one asked for; among equals,
// as they came. What goes on by itself has threads of its own.
import { queueOptionsSymbol, type TaskQueue } from 'piscina'

type Lane = 'seen' | 'asked'
export type Urgency = Lane | 'byItself'

type Task = Parameters<TaskQueue['push']>[0]

const laneOf = (task: Task): Lane =>
  (task[queueOptionsSymbol] as { readonly urgency?: Lane } | null)?.urgency ?? 'asked'

/** A task with its urgency, as the pool takes it. */
export const withUrgency = <T extends object>(task: T, urgency: Lane): T => ({
  ...task,
  [queueOptionsSymbol]: { urgency },
})

/** A queue for the pool. */
export class UrgentFirst implements TaskQueue {
  readonly #lanes: Readonly<Record<Lane, Task[]>> = { seen: [], asked: [] }

  get size(): number {
    return this.#lanes.seen.length + this.#lanes.asked.length
  }
  shift(): Task | null {
    return this.#lanes.seen.shift() ?? this.#lanes.asked.shift() ?? null
  }
  push(task: Task): void {
    this.#lanes[laneOf(task)].push(task)
  }
  /** Puts a task back at the head. */
  unshift(task: Task): void {
    this.#lanes[laneOf(task)].unshift(task)
  }
  remove(task: Task): void {
    const lane = this.#lanes[laneOf(task)]
    const at = lane.indexOf(task)
    if (at >= 0) lane.splice(at, 1)
  }
}
