// Keys that a person chose in place of those that commands are declared with.
import { commands, isCommandId, type CommandId } from './declared'
import { isFree } from './key-names'

export type ChosenKeys = Readonly<Partial<Record<CommandId, string>>>

/** What was stored or imported may be old, or anything at all: only what makes sense is taken, each key once. */
export function parseKeys(stored: unknown): ChosenKeys {
  if (typeof stored !== 'object' || stored === null) return {}
  const chosen: Partial<Record<CommandId, string>> = {}
  const seen = new Set<string>()
  for (const [id, key] of Object.entries(stored)) {
    if (!isCommandId(id) || typeof key !== 'string' || !(key === '' || isFree(key)) || seen.has(key)) continue
    if (key !== '') seen.add(key)
    chosen[id] = key
  }
  return chosen
}

/** The keys of all commands; an empty one has none. A chosen key is taken from whatever it was declared for. */
export function keysBy(chosen: ChosenKeys): Readonly<Record<CommandId, string>> {
  const taken = new Set(Object.values(chosen).filter((key) => key !== ''))
  return Object.fromEntries(commands.map(({ id, key }) => [id, chosen[id] ?? (taken.has(key) ? '' : key)])) as Record<
    CommandId,
    string
  >
}
