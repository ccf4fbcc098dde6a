// The words of the Record.
export const text = {
  title: 'Record', grid: 'Versions side by side', gridTip: 'Shows the present grade and all versions beside one another.', showGrid: 'Side by side', list: 'Back to the record', asPresent: 'as the present one', versions: 'Versions', noVersions: 'No version yet. Give a revision a name to find it again.',
  lead: 'Everything that was done to this shot, newest first. Nothing is ever overwritten.',
  name: 'Name it', nameTip: 'Gives this revision a name: a version.', namePlaceholder: 'Version name', keep: 'Keep', cancel: 'Leave it', remove: 'Remove the name',
  back: 'Go back to this', backTip: 'Makes this grade the present one, as a new revision. What came after stays in the record.',
  compare: 'Compare', compareTip: 'Shows what lies between two revisions: choose this one, then another.', comparing: (depth: number): string => `revision ${depth} with …`, between: (a: string, b: string): string => `From ${a} to ${b}`, same: 'The two are the same.', endCompare: 'End comparing',
  present: 'present', redo: 'reached by redo', beside: 'beside the present path', revision: (depth: number): string => `revision ${depth}`,
  why: { hand: 'by hand', aim: 'by aims', balance: 'Balance for me', reading: 'by a reading', carried: 'carried over', back: 'went back', cdl: 'decision list', setup: 'with its set-up' } as Readonly<Record<string, string>>,
  sheet: 'Grade sheet', sheetTip: 'A page to print: encoding, controls, readings before and after, stills, waived readings.', projectSheet: 'Sheet of the project',
  filter: 'Filter', filterTip: 'Shows revisions whose words hold this.', none: 'Nothing in the record fits.', still: (depth: number): string => `Revision ${depth}, lead frame`,
} as const
