// Tries of work: each has a token that says which process it belongs to.
import { randomUUID } from 'node:crypto'
import type { Attempt } from '../db/work'
import { isRunning, ownMark } from '../store/process-mark'

export const newAttempt = (id: string): Attempt => ({ id, attempt: `${ownMark} ${randomUUID()}` })

/** Whether the process of a try is gone. */
export const isLost = (attempt: string): boolean => !isRunning(attempt.split(' ')[0] ?? '')
