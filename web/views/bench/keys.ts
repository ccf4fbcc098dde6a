// The Bench's keys, chosen for the left hand while the right one drags. One list for the bindings and for the sheet.
export interface KeyAction {
  readonly keys: string
  readonly what: string
}

export const keySheet: readonly { readonly group: string; readonly actions: readonly KeyAction[] }[] = [
  {
    group: 'Frames',
    actions: [
      { keys: 'S', what: 'one frame back' },
      { keys: 'D', what: 'one frame on' },
      { keys: 'Shift+S / Shift+D', what: 'twelve frames back or on' },
      { keys: 'E', what: 'to the lead frame' },
      { keys: 'Shift+E', what: 'make this the lead frame' },
      { keys: 'R', what: 'to the next moment worth a look' },
    ],
  },
  {
    group: 'Playing',
    actions: [
      { keys: 'Space', what: 'play and pause' },
      { keys: 'X and C', what: 'faster backward, faster forward' },
      { keys: 'Z and V', what: 'the looped range begins here, ends here' },
      { keys: 'G', what: 'loop on and off' },
    ],
  },
  {
    group: 'Looking',
    actions: [
      { keys: 'Q (hold)', what: 'as shot while held' },
      { keys: 'A', what: 'as shot on and off' },
      { keys: 'W', what: 'next surround' },
      { keys: 'O', what: 'larger: 1:1, 2:1, 4:1, 8:1, and as it fits; Shift+O fits it at once' },
      { keys: 'Ctrl+wheel', what: 'larger or smaller about the pointer; the wheel alone, or Alt+arrows, moves it' },
      { keys: 'Shift+W', what: 'as at the other display gamma: a phone in daylight, or a dim room' },
      { keys: 'F', what: 'next instrument fills the column' },
      { keys: 'B', what: 'measure a part: a box, or the open region' },
      { keys: 'T', what: 'next marks on the picture' },
      { keys: 'H', what: 'instruments look after this station, or at the picture' },
      { keys: 'Y', what: 'hold this trace as the reference' },
      { keys: 'M', what: 'hold this picture; then wipe, side by side, blink' },
      { keys: '` (hold)', what: 'leave the open station out; on a control, its step' },
    ],
  },
  {
    group: 'Working',
    actions: [
      { keys: '1 … 8', what: 'stations, Read to Finish' },
      { keys: 'N', what: 'balance for me: choices, taken by 1, 2, 3, 4' },
      { keys: 'Enter / Esc', what: 'keep what the aims came to, or take it back' },
      { keys: 'Ctrl+Z', what: 'undo' },
      { keys: 'Ctrl+Shift+Z', what: 'redo' },
      { keys: '[ and ]', what: 'shot before, shot after' },
      { keys: '?', what: 'this sheet' },
    ],
  },
  {
    group: 'On a control',
    actions: [
      { keys: 'arrows', what: 'one step; Shift ×10, Alt ×0.1' },
      { keys: 'Delete', what: 'back to neutral; a curve point goes' },
      { keys: 'arrows on a region handle', what: 'move it' },
    ],
  },
]

/** True when a key press belongs to a field or a control and not to the Bench. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target
  return (
    target instanceof HTMLInputElement ||
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLElement && (target.isContentEditable || target.getAttribute('role') === 'combobox'))
  )
}
