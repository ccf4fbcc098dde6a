// The stations of the Passage, in their fixed order, and the pages that their controls stand on.

/** Controls that are looked at together. A step kind names its page; one that is not listed gets a page of its own. */
export interface StationPage {
  readonly id: string
  readonly name: string
}
export interface Station {
  readonly id: StationId
  readonly name: string
  readonly tip: string
  /** In the order in which they are offered; a station of one page does not name it. */
  readonly pages: readonly StationPage[]
}
export type StationId = 'read' | 'level' | 'shape' | 'hue' | 'regions' | 'look' | 'show' | 'finish'

export const stations: readonly Station[] = [
  { id: 'read', name: 'Read', tip: 'Camera code values become scene light.', pages: [{ id: 'read', name: 'read' }] },
  {
    id: 'level',
    name: 'Level',
    tip: 'Exposure and white balance.',
    pages: [
      { id: 'level', name: 'whole' },
      { id: 'by-tone', name: 'by tone' },
      { id: 'camera', name: 'camera' },
    ],
  },
  {
    id: 'shape',
    name: 'Shape',
    tip: 'Contrast and tone curves.',
    pages: [
      { id: 'tone', name: 'tone' },
      { id: 'tones', name: 'curves and zones' },
      { id: 'detail', name: 'detail' },
    ],
  },
  {
    id: 'hue',
    name: 'Hue',
    tip: 'Saturation and colour curves.',
    pages: [
      { id: 'saturation', name: 'whole' },
      { id: 'colours', name: 'curves and colours' },
    ],
  },
  {
    id: 'regions',
    name: 'Regions',
    tip: 'The same tools on a part of the picture.',
    pages: [{ id: 'regions', name: 'regions' }],
  },
  {
    id: 'look',
    name: 'Look',
    tip: 'LUTs and recipes.',
    pages: [
      { id: 'luts', name: 'LUTs' },
      { id: 'recipes', name: 'recipes' },
      { id: 'cdl', name: 'decision list' },
      { id: 'shared', name: 'shared look' },
    ],
  },
  { id: 'show', name: 'Show', tip: 'Scene light becomes the display signal.', pages: [{ id: 'show', name: 'show' }] },
  { id: 'finish', name: 'Finish', tip: 'What belongs on the display side.', pages: [{ id: 'finish', name: 'finish' }] },
]
