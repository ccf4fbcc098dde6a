// The stations of the Passage, in their fixed order.

export interface Station {
  readonly id: StationId
  readonly name: string
  readonly tip: string
}
export type StationId = 'read' | 'level' | 'shape' | 'hue' | 'regions' | 'look' | 'show' | 'finish'

export const stations: readonly Station[] = [
  { id: 'read', name: 'Read', tip: 'Camera code values become scene light.' },
  { id: 'level', name: 'Level', tip: 'Exposure and white balance.' },
  { id: 'shape', name: 'Shape', tip: 'Contrast and tone curves.' },
  { id: 'hue', name: 'Hue', tip: 'Saturation and colour curves.' },
  { id: 'regions', name: 'Regions', tip: 'The same tools on a part of the picture.' },
  { id: 'look', name: 'Look', tip: 'LUTs and recipes.' },
  { id: 'show', name: 'Show', tip: 'Scene light becomes the display signal.' },
  { id: 'finish', name: 'Finish', tip: 'What belongs on the display side.' },
]
