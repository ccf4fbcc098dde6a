// Keys by name: how a press is called, in the order Ctrl, Alt, Shift, key.

export interface KeyPress {
  readonly key: string
  readonly ctrlKey: boolean
  readonly metaKey: boolean
  readonly altKey: boolean
  readonly shiftKey: boolean
}

const named: Readonly<Record<string, string>> = { ' ': 'Space', Escape: 'Esc' }
const modifiers = new Set([
  'Control',
  'Shift',
  'Alt',
  'Meta',
  'AltGraph',
  'CapsLock',
  'Dead',
  'Process',
  'Unidentified',
])

/** "Ctrl+Shift+Z"; null for a modifier by itself. Signs are called as they are typed, however that is done. */
export function keyOf({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyPress): string | null {
  if (modifiers.has(key)) return null
  const letter = key.toLowerCase() !== key.toUpperCase() && key.length === 1
  const name = named[key] ?? (letter ? key.toUpperCase() : key)
  const shifted = shiftKey && (letter || key.length > 1)
  return [ctrlKey || metaKey ? 'Ctrl' : '', altKey ? 'Alt' : '', shifted ? 'Shift' : '', name]
    .filter((part) => part !== '')
    .join('+')
}

/** Keys that belong to the page or to controls, and can be given to no command. */
const taken = /^(?:(?:Shift\+)?Tab|F\d+|Delete|Backspace|Home|End|Page\w+|(?:\w+\+)*Arrow\w+|Ctrl\+[CVXAPRTWNLF0-9K])$/

/** Whether a key may be given to a command. */
export const isFree = (key: string): boolean => key.length <= 40 && key !== '' && !taken.test(key)
