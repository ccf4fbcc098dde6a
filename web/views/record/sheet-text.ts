// The words of the grade sheet.
export const sheetText = {
  title: (project: string): string => `Grade sheet, ${project}`, made: (time: string, shots: number): string => `Made ${time}. ${shots === 1 ? '1 shot' : `${shots} shots`}.`, measuring: 'Measuring the shots …',
  back: 'Record', backReel: 'Reel', print: 'Print', asShot: 'As shot', graded: 'As graded', scene: 'Scene', camera: 'Camera', source: 'Source', frames: 'Frames', lead: (frame: number, count: number): string => `${count}; lead frame ${frame}`,
  encoding: 'Encoding', display: 'Display', standard: 'Standard', evidence: 'Evidence:', controls: 'Controls', untouched: 'Nothing was changed.', aims: 'Aims', readings: 'Readings on the lead frame', reading: 'Reading', before: 'Before', after: 'After', target: 'Wanted',
  waived: (reason: string): string => `waived: ${reason}`, met: 'met', record: 'What was done',
} as const
