// Kinds of step that have an editor of their own; all others are drawn as scales.
export const editedOn = {
  zones: ['zone'],
  toneCurves: ['tone-curve'],
  colourCurves: ['colour-curves'],
  luts: ['lut'],
  decisionList: ['cdl'],
} as const

export const editedKinds: ReadonlySet<string> = new Set(Object.values(editedOn).flat())
