// The words of the Cameras view.
export const text = {
  title: 'Cameras',
  parts: { encodings: 'Encodings', lookup: 'Look up', measure: 'Measure', compare: 'Compare' },
  partTips: { encodings: 'Every encoding with its curve, gamut and levels.', lookup: 'Find an encoding by what a data sheet says.', measure: 'Fit a curve to a grey scale, a bracketed card, a table or a LUT.', compare: 'One frame through every plausible encoding, with evidence.' },
  list: { name: 'Encoding', black: 'Black', grey: 'Grey', white: '90 %', reach: 'Over grey', codesTip: '10-bit code of full range.', reachTip: 'Stops from middle grey to the highest code.', own: 'your own', remove: 'Remove', export: 'Export yours', import: 'Import', none: 'None of your own yet: look one up or measure one.' },
  detail: {
    curve: 'Curve', curveTip: 'Stops from middle grey across, code upward. The lines mark middle grey and the clip.', gamut: 'Gamut', gamutTip: 'Primaries on the CIE 1931 chromaticity chart, beside those of displays.',
    above: 'Stops over grey', below: 'Stops under grey', belowTip: 'Down to one 10-bit code over black.', zebraGrey: 'Zebra, grey card', zebraWhite: 'Zebra, 90 % white', zebraTip: 'The level a monitor shows, in % of full range.', clip: 'Light at clip', clipTip: 'Scene light at the highest code, where middle grey is 0.18.',
    perStop: 'Codes per stop', perStopTip: 'How many codes each stop is given with 8 and with 10 bits. Under about 8, steps may show after grading.', source: 'Source', stops: 'stops from middle grey', code: '10-bit code', percent: '%',
  },
  lookup: {
    intro: 'Type what the data sheet says, as 41.1%, 420/1023 (or /255, /4095) or 0.411. One value is enough; two or three tell more.', black: 'Black', grey: '18 % grey', white: '90 % white', range: 'Levels are', rangeTip: 'Whether percentages on the sheet count from legal black and white or from the whole range of codes.', full: 'full range', legal: 'legal range',
    error: 'Off by', codes: 'codes', within: 'fits', beyond: 'beyond rounding', fitted: 'No known encoding fits. A curve through these three values:', keep: 'Keep as my own', nothing: 'Nothing typed yet.',
  },
  measure: {
    from: 'Measure from', frame: 'patches of a frame', table: 'a pasted table', lut: 'a conversion LUT', shot: 'Shot', frameNumber: 'Frame', choose: 'Choose a shot to measure on.',
    how: 'Drag over each patch, brightest or darkest first. Every new patch takes the next step of light; correct the numbers where yours differ.', steps: 'Step', stepsTip: 'Between one patch and the next, in stops: 0.5 for many grey scales, 1 for a card bracketed by whole stops. Negative when you begin with the brightest.', first: 'First patch is', firstTip: 'Light of the first patch, where middle grey is 0.18.',
    patch: 'Patch', code: 'Code', light: 'Light', residual: 'Residual', residualTip: 'Decoded light over stated light, in stops.', clear: 'Start over', removePatch: 'Remove this patch', fit: 'Fit', rms: (stops: string, patches: number): string => `${stops} stops left over ${patches} patches`,
    nearest: (name: string, codes: string, stops: string): string => `${name} explains them within ${codes} codes, at ${stops} stops of exposure.`, needMore: (n: number): string => `${n} more ${n === 1 ? 'patch' : 'patches'} before a curve can be fitted.`,
    name: 'Name', gamut: 'Gamut', keep: 'Keep as my own', kept: (name: string): string => `"${name}" is kept; Read offers it.`, tableHint: 'One pair a line: code, then light with grey at 0.18.', use: 'Use', returns: 'It returns', returnsTip: 'The display or log that the LUT was made for.', lutTip: 'A table that converts camera codes.', noLut: 'none', importLut: 'Import a LUT', lutName: 'LUT',
  },
  compare: {
    choose: 'Choose a shot to compare on.', working: 'Every encoding is being tried …', score: (share: string): string => `${share} %`, use: 'Read by this', used: 'read by this now', tagsFirst: 'The file says', range: { full: 'full range', legal: 'legal range' }, alike: 'group', alikeTip: 'Encodings whose pictures differ by less than a quarter stop here: no picture can tell them apart.', applied: (name: string): string => `The shot is now read by ${name}.`,
    pickHint: 'Click the grey card in any of the pictures to see how far each encoding puts it from 18 % and from neutral.', pick: (name: string): string => `The frame read as ${name}; click its grey card`,
    card: (stops: string, cast: string): string => `The card lies ${stops} stops from grey, its channels ${cast} % apart.`, cardDark: 'The card has no light.',
  },
} as const
