// The Bench's commands, each with its key: chosen for the left hand while the right one drags. One list for the
// bindings, the sheet of keys and the palette.

export interface CommandDeclaration {
  readonly id: string
  readonly group: string
  readonly name: string
  /** The key it has unless another is chosen, as `keyOf` calls it. */
  readonly key: string
  /** It lasts while the key is held. */
  readonly held?: true
}

export const commands = [
  { id: 'frame-back', group: 'Frames', name: 'One frame back', key: 'S' },
  { id: 'frame-on', group: 'Frames', name: 'One frame on', key: 'D' },
  { id: 'frames-back', group: 'Frames', name: 'Twelve frames back', key: 'Shift+S' },
  { id: 'frames-on', group: 'Frames', name: 'Twelve frames on', key: 'Shift+D' },
  { id: 'lead', group: 'Frames', name: 'To the lead frame', key: 'E' },
  { id: 'make-lead', group: 'Frames', name: 'Make this the lead frame', key: 'Shift+E' },
  { id: 'next-moment', group: 'Frames', name: 'Next moment worth a look', key: 'R' },
  { id: 'play', group: 'Playing', name: 'Play or pause', key: 'Space' },
  { id: 'shuttle-back', group: 'Playing', name: 'Faster backward', key: 'X' },
  { id: 'shuttle-on', group: 'Playing', name: 'Faster forward', key: 'C' },
  { id: 'range-begin', group: 'Playing', name: 'Range begins here', key: 'Z' },
  { id: 'range-end', group: 'Playing', name: 'Range ends here', key: 'V' },
  { id: 'loop', group: 'Playing', name: 'Loop on or off', key: 'G' },
  { id: 'hold-as-shot', group: 'Looking', name: 'As shot while held', key: 'Q', held: true },
  { id: 'as-shot', group: 'Looking', name: 'As shot on or off', key: 'A' },
  { id: 'surround', group: 'Looking', name: 'Next surround', key: 'W' },
  { id: 'zoom', group: 'Looking', name: 'Larger, and as it fits', key: 'O' },
  { id: 'fit', group: 'Looking', name: 'Fit the picture', key: 'Shift+O' },
  { id: 'gamma', group: 'Looking', name: 'As at the other display gamma', key: 'Shift+W' },
  { id: 'instrument', group: 'Looking', name: 'Next instrument fills the column', key: 'F' },
  { id: 'layout', group: 'Looking', name: 'Next layout of the Bench', key: 'L' },
  { id: 'meridian', group: 'Looking', name: 'Meridian usual, tall or folded', key: 'K' },
  { id: 'alone', group: 'Looking', name: 'The picture on the whole screen', key: 'Shift+F' },
  { id: 'live-moments', group: 'Looking', name: 'Live moments on or off', key: 'Shift+R' },
  { id: 'part', group: 'Looking', name: 'Measure a part', key: 'B' },
  { id: 'overlay', group: 'Looking', name: 'Next overlay on the picture', key: 'T' },
  { id: 'tap', group: 'Looking', name: 'Instruments after this station', key: 'H' },
  { id: 'reference', group: 'Looking', name: 'Hold this trace as the reference', key: 'Y' },
  { id: 'compare', group: 'Looking', name: 'Hold this picture, then compare', key: 'M' },
  { id: 'bypass', group: 'Looking', name: 'Without this station while held', key: '`', held: true },
  { id: 'station-read', group: 'Stations', name: 'Read', key: '1' },
  { id: 'station-level', group: 'Stations', name: 'Level', key: '2' },
  { id: 'station-shape', group: 'Stations', name: 'Shape', key: '3' },
  { id: 'station-hue', group: 'Stations', name: 'Hue', key: '4' },
  { id: 'station-regions', group: 'Stations', name: 'Regions', key: '5' },
  { id: 'station-look', group: 'Stations', name: 'Look', key: '6' },
  { id: 'station-show', group: 'Stations', name: 'Show', key: '7' },
  { id: 'station-finish', group: 'Stations', name: 'Finish', key: '8' },
  { id: 'balance', group: 'Working', name: 'Balance for me', key: 'N' },
  { id: 'keep', group: 'Working', name: 'Apply what is proposed', key: 'Enter' },
  { id: 'close', group: 'Working', name: 'Close or discard the last thing', key: 'Esc' },
  { id: 'undo', group: 'Working', name: 'Undo', key: 'Ctrl+Z' },
  { id: 'redo', group: 'Working', name: 'Redo', key: 'Ctrl+Shift+Z' },
  { id: 'shot-before', group: 'Working', name: 'Shot before', key: '[' },
  { id: 'shot-after', group: 'Working', name: 'Shot after', key: ']' },
  { id: 'keys', group: 'Working', name: 'Show all keys', key: '?' },
] as const satisfies readonly CommandDeclaration[]

export type CommandId = (typeof commands)[number]['id']
export const commandGroups: readonly string[] = [...new Set(commands.map((c) => c.group))]
export const isCommandId = (id: unknown): id is CommandId => commands.some((c) => c.id === id)
