import { keysBy, parseKeys } from './chosen-keys'
import { commands } from './declared'
import { isFree, keyOf, type KeyPress } from './key-names'
import { matching, type PaletteEntry } from './matching'

const press = (key: string, held: Partial<KeyPress> = {}): KeyPress => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
})

test.each([
  [press('s'), 'S'],
  [press('S', { shiftKey: true }), 'Shift+S'],
  // Caps lock alone is no Shift.
  [press('S'), 'S'],
  [press('z', { ctrlKey: true }), 'Ctrl+Z'],
  [press('Z', { metaKey: true, shiftKey: true }), 'Ctrl+Shift+Z'],
  [press('?', { shiftKey: true }), '?'],
  [press('`'), '`'],
  [press(' '), 'Space'],
  [press('Escape'), 'Esc'],
  [press('Enter', { shiftKey: true }), 'Shift+Enter'],
  [press('ø'), 'Ø'],
  [press('5', { altKey: true }), 'Alt+5'],
  [press('Shift', { shiftKey: true }), null],
  [press('Dead'), null],
])('%j is called %p', (event, name) => {
  expect(keyOf(event)).toBe(name)
})

test('every command has a key of its own, which it may have', () => {
  const keys: string[] = commands.map((c) => c.key)
  expect(new Set(keys).size).toBe(keys.length)
  expect(keys.filter((key) => !isFree(key))).toEqual([])
  expect(new Set(commands.map((c) => c.id)).size).toBe(commands.length)
})

test.each(['Tab', 'F5', 'Ctrl+C', 'Ctrl+R', 'ArrowLeft', 'Alt+ArrowLeft', 'Shift+Tab', 'Delete', '', 'x'.repeat(41)])(
  '%j cannot be given away',
  (key) => {
    expect(isFree(key)).toBe(false)
  },
)

test('a chosen key is taken from the command that was declared with it; one that was cleared has none', () => {
  const keys = keysBy({ balance: 'S', play: '' })
  expect([keys.balance, keys['frame-back'], keys.play, keys['frame-on']]).toEqual(['S', '', '', 'D'])
  expect(keysBy({})['frame-back']).toBe('S')
})

test('of what was stored or imported only what makes sense is taken', () => {
  expect(parseKeys({ balance: 'K', play: 'K', nothing: 'J', undo: 5, redo: 'Ctrl+C', lead: '', loop: '' })).toEqual({
    balance: 'K',
    lead: '',
    loop: '',
  })
  for (const stored of [null, 'keys', 7, [], undefined]) expect(parseKeys(stored)).toEqual({})
})

test('what is typed is looked for in all words; names that begin with it come first', () => {
  const entry = (group: string, name: string): PaletteEntry => ({ id: name, group, name, run: () => undefined })
  const all = [entry('Shot', 'Old kiln'), entry('Shot', 'Kiln at night'), entry('LUT', 'Ash'), entry('Kiln', 'Door')]
  const names = (typed: string): readonly string[] => matching(all, typed).map((e) => e.name)
  expect(names('kiln')).toEqual(['Kiln at night', 'Old kiln', 'Door'])
  expect(names('  NIGHT kiln ')).toEqual(['Kiln at night'])
  expect(names('shot kiln')).toEqual(['Old kiln', 'Kiln at night'])
  expect(names('')).toEqual(all.map((e) => e.name))
  expect(names('glaze')).toEqual([])
})
