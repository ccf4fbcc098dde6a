// The words of the tour of the Bench: what each part is for, and one thing to try there.
export const tourText = {
  next: 'Next',
  before: 'Back',
  done: 'Done',
  progress: '{{current}} of {{total}}',
  steps: [
    {
      at: '[data-tour="picture"]',
      title: 'The picture',
      words: 'This is your shot, as graded. Hold Q to see it as shot; drag a box to measure a part of it.',
    },
    {
      at: '[data-tour="time"]',
      title: 'The clip',
      words: 'Drag along it to another frame. Space plays the shot with its grade.',
    },
    {
      at: '[data-tour="instruments"]',
      title: 'Instruments',
      words: 'Waveform, parade and vectorscope of this picture. Click a trace to light up the pixels that make it.',
    },
    {
      at: '[data-tour="meridian"]',
      title: 'The Passage',
      words:
        'From camera code on the left to the display on the right, station by station; the band is the picture’s ' +
        'tones. Open a station with a click or its number.',
    },
    {
      at: '[data-tour="controls"]',
      title: 'Controls of the open station',
      words: 'Drag a scale, type a number, or use the arrow keys. Double-click a name to reset it.',
    },
    {
      at: '[data-tour="readings"]',
      title: 'Readings',
      words:
        'What needs attention is read for you: open a reading to see why, where, and what helps. N proposes a balance.',
    },
    {
      at: 'header',
      title: 'And then',
      words: 'Dispatch exports the shot, Record keeps every step. Ctrl+K finds any command by its name.',
    },
  ],
} as const
