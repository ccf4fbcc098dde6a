// The words of the Reel view.
export const text = {
  title: 'Reel',
  add: 'Add clips',
  drop: 'Drop video files here to add them to the reel.',
  empty: 'No shots yet. Add clips, or drop files on this page.',
  columns: { asShot: 'As shot', graded: 'As graded', name: 'Shot', camera: 'Camera and encoding', source: 'Source', frames: 'Length', state: 'State' },
  tips: {
    asShot: 'The lead frame as the camera wrote it.',
    graded: 'The lead frame through the shot\'s Passage.',
    encoding: 'How the camera wrote light as code values, named by the 10-bit codes of grey and black.',
    source: 'Bits per sample, chroma layout and code range: what the file leaves for grading.',
  },
  untouched: 'new',
  revisions: (count: number): string => (count === 1 ? '1 revision' : `${count} revisions`),
  sending: (share: number): string => (share < 1 ? `sending ${Math.round(share * 100)} %` : 'being checked'),
  cancel: 'Cancel',
} as const
