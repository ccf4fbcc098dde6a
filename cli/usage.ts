// Errors of use: one clear line on standard error, and exit code 2.
import type { Box } from '@core/image'

export class UsageError extends Error {}

/** A number from the command line. Throws UsageError naming the option. */
export function numberOption(text: string, option: string, min: number, max: number): number {
  const value = Number(text.replace('−', '-'))
  if (text.trim() === '' || !Number.isFinite(value) || value < min || value > max)
    throw new UsageError(`--${option} must be a number from ${min} to ${max}, not "${text.slice(0, 40)}".`)
  return value
}

/** One of several words. Throws UsageError naming the option and the words. */
export function choiceOption<T extends string>(text: string, option: string, choices: readonly T[]): T {
  const found = choices.find((c) => c === text)
  if (found === undefined)
    throw new UsageError(`--${option} must be one of ${choices.join(', ')}, not "${text.slice(0, 40)}".`)
  return found
}

/** An area in pixels; null where the option is not given. Throws UsageError naming the option. */
export function boxOption(text: string | undefined, option: string): Box | null {
  if (text === undefined) return null
  const found = /^(\d{1,6}),(\d{1,6}),(\d{1,6}),(\d{1,6})$/.exec(text)
  if (!found) throw new UsageError(`--${option} must look like 120,80,40,40, not "${text.slice(0, 60)}".`)
  const [x = 0, y = 0, width = 0, height = 0] = found.slice(1).map(Number)
  return { x, y, width, height }
}
