// Which key is whose: as declared, but for those that this person chose; kept in this browser.
import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { keysBy, parseKeys, type ChosenKeys } from '../commands/chosen-keys'
import { commands, type CommandId } from '../commands/declared'
import { isFree } from '../commands/key-names'

export const useKeys = defineStore('keys', () => {
  const chosen = useLocalStorage<ChosenKeys>(
    'pale-keys',
    {},
    {
      shallow: true,
      serializer: {
        read: (text) => {
          try {
            return parseKeys(JSON.parse(text))
          } catch {
            return {}
          }
        },
        write: (value) => JSON.stringify(value),
      },
    },
  )
  const keys = computed(() => keysBy(chosen.value))
  const byKey = computed(
    () => new Map(commands.flatMap(({ id }) => (keys.value[id] === '' ? [] : [[keys.value[id], id] as const]))),
  )
  /** Gives a key to a command, and says which other one has lost it. Throws RangeError for one that cannot be given. */
  function choose(id: CommandId, key: string): CommandId | null {
    if (!isFree(key)) throw new RangeError(`${key} belongs to the page and cannot be given to a command.`)
    const before = byKey.value.get(key) ?? null
    const lost = before === id ? null : before
    chosen.value = parseKeys({ ...chosen.value, ...(lost ? { [lost]: '' } : {}), [id]: key })
    return lost
  }
  return {
    keys,
    commandOf: (key: string): CommandId | undefined => byKey.value.get(key),
    isChanged: computed(() => Object.keys(chosen.value).length > 0),
    choose,
    reset: (): void => {
      chosen.value = {}
    },
    exported: (): string => `${JSON.stringify(keys.value, null, 2)}\n`,
    /** How many keys a file gave. */
    imported: (text: string): number => {
      const found = parseKeys(JSON.parse(text))
      chosen.value = found
      return Object.keys(found).length
    },
  }
})
