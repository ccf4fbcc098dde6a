// The words of the Projects view.
export const text = {
  title: 'Projects',
  none: 'There is no project yet. Make one below, or start the program with bin/demo to get the demo project.',
  newLabel: 'New project',
  newPlaceholder: 'Its name',
  make: 'Make it',
  shots: (count: number): string => (count === 1 ? '1 shot' : `${count} shots`),
} as const
