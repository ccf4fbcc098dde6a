// What a command declares: its options for parsing and help, and what it prints.
import type { ParseArgsConfig } from 'node:util'

export interface Answer {
  /** Printed with --json. */
  readonly json: unknown
  readonly text: string
  /** Where the answer itself says that something is not as it should be. */
  readonly exitCode?: 0 | 1
}

export interface Command {
  readonly name: string
  readonly summary: string
  readonly usage: string
  /** More lines for --help. */
  readonly notes?: readonly string[]
  readonly options: NonNullable<ParseArgsConfig['options']>
  readonly run: (values: Readonly<Record<string, unknown>>, positionals: readonly string[]) => Promise<Answer>
}

/** An option's text, or undefined when it was not given. */
export const textOf = (values: Readonly<Record<string, unknown>>, option: string): string | undefined => {
  const value = values[option]
  return typeof value === 'string' ? value : undefined
}
export const listOf = (values: Readonly<Record<string, unknown>>, option: string): readonly string[] => {
  const value = values[option]
  return Array.isArray(value) ? value.filter((v): v is string => typeof v === 'string') : []
}
