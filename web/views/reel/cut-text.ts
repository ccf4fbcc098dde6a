// The words of cutting a programme into shots.
export const cutText = {
  title: (name: string): string => `Cut ${name}`,
  find: 'Find cuts',
  findTip: 'Where picture and colours jump from one frame to the next. Dissolves are flagged: their middle is taken.',
  list: 'Read an edit list',
  listTip: 'An EDL of the CMX3600 kind or an OpenTimelineIO timeline of this programme.',
  handles: 'Handles',
  handlesTip: 'Frames more on both sides of each event, where the footage has them.',
  make: (count: number): string => (count === 1 ? 'Make 1 shot' : `Make ${count} shots`),
  found: (cuts: number, dissolves: number): string => {
    if (dissolves === 0) return `${cuts} cuts found.`
    return `${cuts} cuts found, ${dissolves === 1 ? '1 of them a dissolve' : `${dissolves} of them dissolves`}.`
  },
  listed: (pieces: number, outside: number): string =>
    `${pieces} events read${outside > 0 ? `; ${outside} lie outside the footage` : ''}.`,
  frame: 'Frame',
  split: 'Split here',
  splitTip: 'This frame becomes the first of a new shot.',
  nameOf: (n: number): string => `Name of shot ${n}`,
  first: 'from',
  last: 'to',
  length: (count: number): string => `${count} frames`,
  dissolve: (length: number): string => `dissolve, ${length} frames`,
  join: 'Join with next',
  leave: 'Leave out',
} as const
