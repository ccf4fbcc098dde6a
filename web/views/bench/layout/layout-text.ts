// The words about the Bench's layout.
import type { BenchLayout } from '../../../stores/kept-settings'

interface Choice<T> {
  readonly id: T
  readonly name: string
  readonly tip: string
}

export const layoutText = {
  open: 'Layout',
  openTip: 'Who has the room: the picture, the instruments, or both.',
  room: 'Room',
  arrangements: [
    { id: 'balanced', name: 'Balanced', tip: 'Picture and instruments side by side.' },
    { id: 'picture', name: 'Picture', tip: 'The picture as large as the window allows. The Meridian folds away.' },
    { id: 'instruments', name: 'Instruments', tip: 'Large instruments beside a small picture.' },
  ] satisfies readonly Choice<BenchLayout['arrangement']>[],
  meridian: 'Meridian',
  meridianHeights: [
    { id: 'folded', name: 'Folded', tip: 'Only the names of the stations and what they lost.' },
    { id: 'usual', name: 'Usual', tip: 'The lines at their usual height.' },
    { id: 'tall', name: 'Tall', tip: 'The lines high enough to read small moves.' },
  ] satisfies readonly Choice<BenchLayout['meridian']>[],
  moments: 'Live moments',
  momentsTip: 'Lead, darkest and brightest frame beside the picture, while a control moves.',
  alone: 'Full screen',
  aloneTip: 'The picture and its transport alone. All keys still work; Esc comes back.',
  window: 'Picture in a window of its own',
  windowTip: 'For a second display. It follows this Bench.',
  divider: 'Divider between picture and instruments',
  dividerTip: 'Drag to give the picture more or less room. A double click puts it back.',
}
