// The words of the Standards view.
export const text = {
  title: 'House standards',
  about: 'What readings are held against. Practitioners disagree: each school is a standard, and a scene picks one on the Reel.',
  shipped: 'Shipped', own: 'Your own',
  copy: 'Copy to change', remove: 'Remove', sureRemove: 'Remove for good', exportOne: 'Export', importFile: 'Import', save: 'Save', saved: 'saved', changed: 'not saved', revert: 'Take back',
  fixed: 'This one ships with the program. Copy it to change it.',
  name: 'Name', tip: 'What it is for',
  reading: 'Reading', from: 'From', to: 'To', tolerance: 'Tolerance', counts: 'Counts', unit: 'Unit',
  countsTip: (name: string): string => `${name} is held against the standard`,
  picture: 'Targets on a waveform',
  noLevels: 'This standard asks nothing of the levels.',
  badFile: 'The file is no JSON.',
  badOrder: (name: string): string => `${name}: "from" lies over "to".`,
  copyName: (name: string): string => `${name}, own`,
} as const
