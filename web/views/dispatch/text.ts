// The words of the Dispatch view.
export const text = {
  title: (shot: string): string => `Dispatch of ${shot}`,
  still: 'This frame',
  stillNote: (frame: number, width: number, height: number): string =>
    `Frame ${frame} as graded, ${width}×${height}, PNG with 16 bits per channel.`,
  takeStill: 'Download PNG',
  listNote: 'The whole reel as an edit list, with the colour decisions of its shots.',
  takeList: { edl: 'Download EDL', otio: 'Download OTIO' },
  lut: 'The grade as a LUT',
  export: {
    input: 'Input',
    inputTip: 'What will be fed to the LUT where it is used.',
    output: 'Output',
    outputTip:
      'Under a conversion: what goes in comes out corrected, for a camera or monitor that converts behind the LUT.',
    format: 'Format',
    formatTip: 'The kind of file.',
    shaper: 'Shaper',
    shaperTip:
      "A curve of 4096 entries deals the cube's entries out to where the grade bends: nearer, but not " +
      'read by every program.',
    range: 'Range',
    rangeTip: 'How the camera, monitor or program that holds the LUT understands the signal.',
    options: {
      input: [
        { id: 'camera', name: 'camera codes' },
        { id: 'working-log', name: 'working log' },
        { id: 'display', name: 'the display signal' },
      ],
      output: [
        { id: 'display', name: 'the display signal' },
        { id: 'under', name: 'the same, under a conversion' },
      ],
      format: [
        { id: 'cube', name: '.cube' },
        { id: 'clf', name: 'common LUT format, .clf' },
        { id: 'hald', name: 'Hald picture, .png' },
      ],
      shaper: [
        { id: 'false', name: 'none' },
        { id: 'true', name: 'a shaper' },
      ],
      range: [
        { id: 'full', name: 'full range' },
        { id: 'legal', name: 'legal range, 64 to 940' },
      ],
    },
  },
  entries: 'Entries per axis',
  entriesTip: 'More entries follow the grade more closely; 33 is what most devices take.',
  carried: 'Everything in the grade is carried.',
  leftOut: (what: readonly string[]): string => `A LUT sees one pixel at a time. Not carried: ${what.join(', ')}.`,
  error: (measure: string, mean: number, high: number, worst: number): string =>
    `Against exact evaluation on this frame: mean ${measure} ${mean.toFixed(3)}, 99.9th percentile ` +
    `${high.toFixed(2)}, worst ${worst.toFixed(2)}.`,
  measuring: 'Being measured …',
  takeLut: 'Download LUT',
  clip: 'The whole clip',
  clipNote: (frames: number, width: number, height: number, display: string, bits: number): string =>
    `${frames} frames, ${width}×${height}, H.264 of ${bits} bits in an .mp4, tagged for ${display}, legal range.`,
  render: 'Render',
  renderThis: (shot: string): string => `Render “${shot}”`,
  renders: 'Renders',
  columns: { picture: 'Picture', shot: 'Shot', frames: 'Frames', made: 'Started', state: 'State' },
  noRenders: 'Nothing has been rendered in this project. A render goes on when you leave this page.',
  cancel: 'Cancel',
  takeFile: 'Download file',
  remove: 'Remove',
  renderOf: (shot: string): string => `Render of ${shot}`,
  removeOf: (shot: string): string => `Remove the render of ${shot}`,
  removeTip: 'Takes the render off this list. It can be brought back for a week.',
  states: { queued: 'waiting', running: 'running', done: 'done', failed: 'failed', cancelled: 'cancelled' },
} as const
