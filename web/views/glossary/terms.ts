// The words of this program and of its field, each in two or three plain sentences.

export interface Term {
  /** Its address on the page. */
  readonly id: string
  readonly name: string
  /** A word of this program; else one of the field. */
  readonly ours?: true
  readonly words: string
}

const list: readonly Term[] = [
  {
    id: 'reel',
    name: 'Reel',
    ours: true,
    words:
      'All shots of a project in their order, grouped by scenes. Footage comes in here, and what holds for many ' +
      'shots is set here.',
  },
  {
    id: 'bench',
    name: 'Bench',
    ours: true,
    words: 'Where one shot is worked on: its picture, the instruments, the Meridian, and the controls of one station.',
  },
  {
    id: 'passage',
    name: 'Passage',
    ours: true,
    words:
      "The signal's way from the camera's code values to the screen. It runs through eight stations in one order, " +
      'from Read to Finish.',
  },
  {
    id: 'station',
    name: 'Station',
    ours: true,
    words:
      'One part of the Passage. Read makes scene light of code values, Level sets exposure and white balance, Shape ' +
      'contrast, Hue colours, Regions act on a part of the picture, Look holds LUTs and recipes, Show makes the ' +
      "display's signal, Finish what belongs on the display.",
  },
  {
    id: 'meridian',
    name: 'Meridian',
    ours: true,
    words:
      'The chart under the picture: lines that carry dark, middle and bright tones from station to station. Where ' +
      'they part, contrast opens; where they run together, detail is lost.',
  },
  {
    id: 'reading',
    name: 'Reading',
    ours: true,
    words: 'A number measured on the picture, with what the standard wants of it. What needs attention comes first.',
  },
  {
    id: 'aim',
    name: 'Aim',
    ours: true,
    words:
      'Where something in the picture should sit: white at 94 %, a face on its own colour. The program works out the ' +
      'controls, shows them, and changes nothing until you apply them.',
  },
  {
    id: 'guard',
    name: 'Guard',
    ours: true,
    words: 'An aim that was kept: later moves that break it are shown.',
  },
  {
    id: 'standard',
    name: 'Standard',
    ours: true,
    words: 'A list of targets that readings are held against. Scenes may have different ones.',
  },
  {
    id: 'recipe',
    name: 'Recipe',
    ours: true,
    words: 'Steps of a grade under a name, to be used on other shots and in other projects.',
  },
  {
    id: 'look',
    name: 'Look',
    ours: true,
    words: 'The style of the pictures: LUTs, recipes and decision lists. A shared look is one that many shots carry.',
  },
  {
    id: 'record',
    name: 'Record',
    ours: true,
    words: 'Everything that was done to a shot, in numbers, with why. Nothing in it is ever lost by going back.',
  },
  {
    id: 'subject',
    name: 'Subject',
    ours: true,
    words: 'A person who recurs. Their skin is held against their own card, not against a rule for everybody.',
  },
  {
    id: 'lead-frame',
    name: 'Lead frame',
    ours: true,
    words: 'The frame that stands for a shot on the Reel and that is measured there.',
  },
  {
    id: 'set-up',
    name: 'Set-up',
    ours: true,
    words: 'Shots of one camera and light that are linked: a correction of one goes to all, by as much.',
  },
  {
    id: 'continuity',
    name: 'Continuity',
    ours: true,
    words: 'Where the shots of a scene stand side by side: what jumps at a cut is seen, matched and played.',
  },
  {
    id: 'shelf',
    name: 'Shelf',
    ours: true,
    words: 'The stills of a project, each with the grade it was kept with, and imported pictures.',
  },
  {
    id: 'dispatch',
    name: 'Dispatch',
    ours: true,
    words: 'Where pictures, LUTs and films are written to files.',
  },
  {
    id: 'cameras',
    name: 'Cameras',
    ours: true,
    words: 'How cameras write light as codes: look one up, measure one, or estimate one from a clip.',
  },
  {
    id: 'waveform',
    name: 'Waveform',
    words:
      'The picture from left to right, each column with the levels of its pixels from 0 to 100 % above each other.',
  },
  {
    id: 'parade',
    name: 'Parade',
    words: 'Three waveforms side by side, of red, green and blue. Equal feet and heads mean no cast.',
  },
  {
    id: 'vectorscope',
    name: 'Vectorscope',
    words: 'The colours of all pixels around a middle: direction is hue, distance is chroma. Grey lies in the middle.',
  },
  {
    id: 'histogram',
    name: 'Histogram',
    words: 'How many pixels have each level, from dark at the left to bright at the right.',
  },
  {
    id: 'luma',
    name: 'Luma',
    words: 'The weighted sum of red, green and blue that video carries as brightness (ITU-R BT.709, item 3.2).',
  },
  {
    id: 'stop',
    name: 'Stop',
    words: 'A doubling or halving of light. One stop more is twice the light.',
  },
  {
    id: 'middle-grey',
    name: 'Middle grey',
    words: 'A surface that reflects 18 % of the light. Exposure is counted in stops from it.',
  },
  {
    id: 'log',
    name: 'Log',
    words:
      'A way of writing light as codes in which each stop gets about as many codes. It looks flat until it is read ' +
      'by the right curve.',
  },
  {
    id: 'encoding',
    name: 'Encoding',
    words: 'How a camera wrote light as codes: a curve and a gamut. Here cameras go by their codes of grey and black.',
  },
  {
    id: 'gamut',
    name: 'Gamut',
    words: 'The colours that a camera can write or a display can show.',
  },
  {
    id: 'legal-range',
    name: 'Legal range',
    words: 'Video that keeps codes below black and above white free: 64 to 940 of 10 bits. Full range uses all.',
  },
  {
    id: 'clipped',
    name: 'Clipped, crushed',
    words: 'Pixels at the very top, or at the very bottom, of what the signal can carry. Their detail is gone.',
  },
  {
    id: 'white-balance',
    name: 'White balance',
    words: 'Temperature and tint that make a white surface look white. Temperature is counted in mired, tint in Duv.',
  },
  {
    id: 'mired',
    name: 'Mired',
    words: 'A million divided by the temperature in kelvins. Equal steps look about equal, which kelvins do not.',
  },
  {
    id: 'duv',
    name: 'Duv',
    words: 'How far a white lies from natural light toward green or magenta, on the diagram of colours.',
  },
  {
    id: 'lut',
    name: 'LUT',
    words: 'A table that turns colours into other colours. One that converts needs the right input, a style a display.',
  },
  {
    id: 'cdl',
    name: 'Decision list',
    words: 'Slope, offset, power and saturation: four numbers that other programs read and write (ASC CDL).',
  },
  {
    id: 'key',
    name: 'Key',
    words: 'A choice of pixels by their colour and light.',
  },
  {
    id: 'matte',
    name: 'Matte',
    words: 'How much each pixel belongs to a region, from black for not at all to white for wholly.',
  },
  {
    id: 'shoulder',
    name: 'Shoulder, toe',
    words: 'The ends of a rendering that roll bright and dark light off softly instead of cutting it.',
  },
  {
    id: 'proxy',
    name: 'Proxy',
    words: 'A smaller copy of a clip for playing. Everything that is measured or delivered comes from the original.',
  },
]

/** In the order of the alphabet. */
export const terms: readonly Term[] = [...list].sort((a, b) => a.name.localeCompare(b.name, 'en'))

/** What a view is for, by its route. */
export const tipOfView = (route: string): string | undefined =>
  list.find((term) => term.id === route || `${term.id}s` === route)?.words

export const glossaryText = {
  title: 'Glossary',
  about: 'Words of this program are marked; the others are those of the field.',
  ours: 'of this program',
  find: 'Find a word',
  none: 'No word fits. Delete a letter or two.',
  back: 'All projects',
  of: (name: string): string => `Glossary: ${name} (F1)`,
}
