// The words of the Projects view.
export const text = {
  title: 'Projects',
  none: 'There is no project yet. Make one below, or start the program with bin/demo to get the demo project.',
  newLabel: 'New project',
  newPlaceholder: 'Name',
  make: 'Create',
  shots: (count: number): string => (count === 1 ? '1 shot' : `${count} shots`),
} as const
