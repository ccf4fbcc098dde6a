// The words of the Projects view.
export const text = {
  title: 'Projects',
  none: 'There is no project yet. Make one below, or start the program with bin/demo to get the demo project.',
  newLabel: 'New project',
  newPlaceholder: 'Name',
  make: 'Create',
  remove: 'Remove',
  removeTip: 'Takes the project off this list. It can be brought back for a week.',
  shots: (count: number): string => (count === 1 ? '1 shot' : `${count} shots`),
} as const
