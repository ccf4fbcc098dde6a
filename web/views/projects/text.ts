// The words of the Projects view.
export const text = {
  title: 'Projects',
  drop: 'Drop films, stills or folders of numbered pictures anywhere here to begin a project.',
  none: 'No project yet.',
  noneHint: 'Drop footage anywhere on this page, choose files, or link them where they lie in the media folder.',
  demoHint: 'The program started with bin/demo has a project with footage to try everything on.',
  choose: 'Choose files',
  files: 'Footage files',
  fromFolder: 'From the media folder',
  newLabel: 'New project',
  newPlaceholder: 'Name',
  make: 'Create',
  rename: 'Rename',
  renameLabel: (name: string): string => `New name of ${name}`,
  save: 'Save',
  cancel: 'Cancel',
  duplicate: 'Duplicate',
  duplicateTip: 'Makes a copy with every shot as it stands now. Footage is shared; renders stay here.',
  archive: 'Archive',
  archiveTip: 'Puts the project out of the way. Nothing is lost.',
  unarchive: 'Unarchive',
  unarchiveTip: 'Puts the project back among the others.',
  archived: (count: number): string => `Archived, ${count}`,
  archivedTip: 'Projects that were put out of the way.',
  remove: 'Remove',
  removeTip: 'Takes the project off this list. It can be restored for a week.',
  shots: (count: number): string => (count === 1 ? '1 shot' : `${count} shots`),
  finished: (finished: number, of: number): string => `${finished} of ${of} finished`,
  renders: ({ underWay, done }: { readonly underWay: number; readonly done: number }): string => {
    if (underWay > 0) return underWay === 1 ? '1 render under way' : `${underWay} renders under way`
    if (done > 0) return done === 1 ? '1 render' : `${done} renders`
    return 'no render'
  },
  begun: (name: string): string => name.replace(/\.[^.]*$/, '') || 'New project',
} as const
