// The demo shots: which plate each is taken from, through which invented camera, with which known faults and moves.

export interface Window {
  /** Centre as shares of the plate, width as a share of the plate's width, turn in degrees. */
  readonly x: number
  readonly y: number
  readonly width: number
  readonly rollDegrees: number
}

/** A four-sided patch on the plate, corners as shares of it, clockwise from the upper left. */
export type Patch = readonly (readonly [number, number])[]

export interface FileKind {
  readonly codec: 'h264' | 'hevc'
  readonly pixelFormat: 'yuv422p10le' | 'yuv420p10le' | 'yuv420p'
  readonly range: 'full' | 'legal'
  readonly matrix: 'bt709' | 'bt2020'
  readonly transfer?: 'bt709' | 'arib-std-b67'
  /** The encoder's constant rate factor. */ readonly crf: number
}

export interface DemoShot {
  readonly id: string
  readonly name: string
  readonly scene: string
  readonly camera: string
  readonly encodingId: string
  readonly gamutId: string
  /** How the camera stores its picture. */
  readonly file: FileKind
  /** The scene description that its plate was rendered from. */
  readonly plate: string
  /** The move takes this many frames, then camera and light rest; without it, the whole clip. */
  readonly moveFrames?: number
  readonly leadFrame: number
  /** Stops by which the shot is over (+) or under (−) exposed. */
  readonly exposureErrorStops: number
  /** The white balance step that makes the light neutral. */
  readonly neutralisedBy: { readonly temperatureMired: number; readonly tint: number }
  /** Slow change of the light over the clip, stops at the last frame. */
  readonly driftStops: number
  /** Standard deviation of sensor noise at zero light, and at middle grey, scene-linear. */
  readonly noise: { readonly black: number; readonly grey: number }
  readonly from: Window
  readonly to: Window
  readonly patches: { readonly greyCard: Patch; readonly white90: Patch; readonly black3: Patch; readonly skin?: Patch }
}

export const footage = { width: 960, height: 540, frames: 120, rate: 24, seed: 1873 } as const

/** How much of a shot's move is done at a frame, 0 to 1. */
export const moveDone = ({ moveFrames = footage.frames }: DemoShot, frame: number): number =>
  Math.min(1, frame / (moveFrames - 1))

export const neutral = { temperatureMired: 0, tint: 0 } as const
/** Patches of a plate of this size, given in its pixels. */
export const patchOn =
  (width: number, height: number) =>
  (...corners: readonly (readonly [number, number])[]): Patch =>
    corners.map(([x, y]) => [x / width, y / height] as const)
const patch = patchOn(1280, 720)
const widePatch = patchOn(1920, 720)
export const cinema: FileKind = { codec: 'h264', pixelFormat: 'yuv422p10le', range: 'full', matrix: 'bt709', crf: 9 }

export const demoShots: readonly DemoShot[] = [
  {
    id: 'glaze-shelf',
    name: 'Glaze shelf',
    scene: 'Workshop',
    camera: 'Tern 40',
    encodingId: 'log-420-95',
    gamutId: 'w766',
    file: cinema,
    plate: 'glaze-shelf',
    moveFrames: 72,
    leadFrame: 30,
    exposureErrorStops: 0,
    neutralisedBy: neutral,
    driftStops: 0,
    noise: { black: 0.0006, grey: 0.0024 },
    from: { x: 0.475, y: 0.515, width: 0.87, rollDegrees: 0 },
    to: { x: 0.52, y: 0.505, width: 0.87, rollDegrees: 0 },
    patches: {
      greyCard: patch([122, 480], [206, 482], [204, 564], [120, 561]),
      white90: patch([226, 476], [247, 477], [246, 514], [225, 513]),
      black3: patch([224, 534], [243, 535], [242, 570], [223, 568]),
    },
  },
  {
    id: 'window-bench',
    name: 'Window bench',
    scene: 'Workshop',
    camera: 'Osier 2',
    encodingId: 'log-400-95-a',
    gamutId: 'w684',
    file: cinema,
    plate: 'window-bench',
    moveFrames: 72,
    leadFrame: 40,
    exposureErrorStops: 0,
    neutralisedBy: neutral,
    driftStops: 0.25,
    noise: { black: 0.0005, grey: 0.002 },
    from: { x: 0.47, y: 0.53, width: 0.92, rollDegrees: 0.6 },
    to: { x: 0.52, y: 0.5, width: 0.9, rollDegrees: -0.6 },
    patches: {
      greyCard: patch([262, 594], [366, 600], [334, 678], [228, 668]),
      white90: patch([397, 595], [418, 597], [401, 632], [381, 629]),
      black3: patch([374, 646], [396, 648], [376, 685], [357, 681]),
    },
  },
  {
    id: 'potter',
    name: 'Potter at the bench',
    scene: 'Portraits',
    camera: 'Brindle C',
    encodingId: 'log-351-128',
    gamutId: 'w740',
    file: cinema,
    plate: 'portrait',
    moveFrames: 72,
    leadFrame: 24,
    exposureErrorStops: -0.7,
    neutralisedBy: { temperatureMired: 4, tint: 8 },
    driftStops: 0,
    noise: { black: 0.0007, grey: 0.003 },
    from: { x: 0.49, y: 0.5, width: 0.95, rollDegrees: 0 },
    to: { x: 0.505, y: 0.515, width: 0.9, rollDegrees: 0.4 },
    patches: {
      greyCard: patch([870, 558], [1000, 563], [998, 680], [866, 671]),
      white90: patch([1025, 556], [1056, 558], [1054, 616], [1023, 613]),
      black3: patch([1023, 638], [1053, 641], [1051, 692], [1021, 688]),
      skin: patch([612, 340], [655, 345], [650, 385], [614, 380]),
    },
  },
  {
    id: 'apprentice',
    name: 'Apprentice',
    scene: 'Portraits',
    camera: 'Tern 40',
    encodingId: 'log-420-95',
    gamutId: 'w766',
    file: cinema,
    plate: 'apprentice',
    moveFrames: 72,
    leadFrame: 36,
    exposureErrorStops: 0.3,
    neutralisedBy: { temperatureMired: -6, tint: -8 },
    driftStops: 0,
    noise: { black: 0.0006, grey: 0.0024 },
    from: { x: 0.5, y: 0.51, width: 0.95, rollDegrees: 0 },
    to: { x: 0.485, y: 0.525, width: 0.91, rollDegrees: -0.3 },
    patches: {
      greyCard: patch([130, 570], [299, 563], [300, 694], [132, 694]),
      white90: patch([310, 562], [345, 558], [347, 626], [311, 630]),
      black3: patch([313, 642], [347, 639], [348, 694], [314, 694]),
      skin: patch([625, 335], [668, 335], [668, 385], [628, 385]),
    },
  },
  {
    id: 'kiln-night',
    name: 'Kiln at night',
    scene: 'Kiln yard',
    camera: 'Brindle C',
    encodingId: 'log-407-95',
    gamutId: 'w740',
    file: { ...cinema, crf: 17 },
    plate: 'kiln-night',
    moveFrames: 72,
    leadFrame: 30,
    exposureErrorStops: -0.3,
    neutralisedBy: neutral,
    driftStops: 0,
    noise: { black: 0.0022, grey: 0.0085 },
    from: { x: 0.5, y: 0.5, width: 0.97, rollDegrees: 0 },
    to: { x: 0.53, y: 0.51, width: 0.88, rollDegrees: 0 },
    patches: {
      greyCard: patch([908, 354], [1022, 352], [1033, 464], [917, 468]),
      white90: patch([1033, 351], [1058, 351], [1063, 403], [1038, 404]),
      black3: patch([1040, 414], [1064, 413], [1068, 466], [1046, 467]),
    },
  },
  {
    id: 'yard-cloud',
    name: 'Yard under cloud',
    scene: 'Kiln yard',
    camera: 'Plover S',
    encodingId: 'flat-gamma',
    gamutId: 'bt709',
    plate: 'yard-cloud',
    moveFrames: 72,
    leadFrame: 36,
    file: { codec: 'h264', pixelFormat: 'yuv420p10le', range: 'legal', matrix: 'bt709', crf: 10 },
    exposureErrorStops: 0.2,
    neutralisedBy: neutral,
    driftStops: 0,
    noise: { black: 0.0006, grey: 0.0026 },
    from: { x: 0.47, y: 0.5, width: 0.62, rollDegrees: -14 },
    to: { x: 0.47, y: 0.5, width: 0.62, rollDegrees: 14 },
    patches: {
      greyCard: patch([555, 441], [643, 441], [642, 523], [551, 523]),
      white90: patch([650, 441], [670, 441], [670, 480], [649, 480]),
      black3: patch([649, 487], [669, 487], [669, 525], [649, 525]),
    },
  },
  {
    id: 'courtyard',
    name: 'Courtyard walk',
    scene: 'Outside',
    camera: 'Osier 2',
    encodingId: 'log-400-95-a',
    gamutId: 'w684',
    file: cinema,
    plate: 'courtyard',
    moveFrames: 72,
    leadFrame: 12,
    exposureErrorStops: 0,
    neutralisedBy: neutral,
    driftStops: 0,
    noise: { black: 0.0005, grey: 0.002 },
    from: { x: 0.275, y: 0.5, width: 0.5, rollDegrees: 0.4 },
    to: { x: 0.72, y: 0.5, width: 0.5, rollDegrees: -0.4 },
    patches: {
      greyCard: widePatch([146, 368], [224, 367], [214, 454], [136, 454]),
      white90: widePatch([231, 365], [254, 365], [247, 409], [225, 409]),
      black3: widePatch([223, 414], [247, 413], [241, 457], [218, 457]),
    },
  },
  {
    id: 'dusk-lantern',
    name: 'Dusk with a lantern',
    scene: 'Outside',
    camera: 'Tern 40',
    encodingId: 'log-420-95',
    gamutId: 'w766',
    file: { ...cinema, crf: 15 },
    plate: 'dusk-lantern',
    moveFrames: 72,
    leadFrame: 36,
    exposureErrorStops: -0.5,
    neutralisedBy: neutral,
    driftStops: -0.15,
    noise: { black: 0.0012, grey: 0.0045 },
    from: { x: 0.46, y: 0.5, width: 0.91, rollDegrees: 0 },
    to: { x: 0.53, y: 0.5, width: 0.91, rollDegrees: 0 },
    patches: {
      greyCard: patch([198, 422], [300, 422], [290, 501], [181, 501]),
      white90: patch([311, 422], [331, 422], [326, 457], [304, 457]),
      black3: patch([302, 467], [325, 467], [320, 501], [296, 501]),
    },
  },
  {
    id: 'market-phone',
    name: 'Market table, phone',
    scene: 'Outside',
    camera: 'Sandpiper phone',
    encodingId: 'hlg',
    gamutId: 'bt2020',
    plate: 'market-table',
    moveFrames: 72,
    leadFrame: 36,
    file: {
      codec: 'hevc',
      pixelFormat: 'yuv420p10le',
      range: 'legal',
      matrix: 'bt2020',
      transfer: 'arib-std-b67',
      crf: 13,
    },
    exposureErrorStops: 0,
    neutralisedBy: neutral,
    driftStops: 0,
    noise: { black: 0.0008, grey: 0.003 },
    from: { x: 0.49, y: 0.5, width: 0.93, rollDegrees: 0.8 },
    to: { x: 0.52, y: 0.49, width: 0.9, rollDegrees: -0.6 },
    patches: {
      greyCard: patch([646, 520], [755, 510], [768, 614], [658, 626]),
      white90: patch([768, 509], [793, 506], [797, 551], [773, 554]),
      black3: patch([774, 566], [798, 562], [803, 612], [779, 615]),
    },
  },
  {
    id: 'market-gamma',
    name: 'Market table, old camera',
    scene: 'Outside',
    camera: 'Plover S',
    encodingId: 'bt709-camera',
    gamutId: 'bt709',
    plate: 'market-table',
    moveFrames: 72,
    leadFrame: 20,
    file: { codec: 'h264', pixelFormat: 'yuv420p', range: 'legal', matrix: 'bt709', transfer: 'bt709', crf: 18 },
    exposureErrorStops: 0.3,
    neutralisedBy: { temperatureMired: 8, tint: 0 },
    driftStops: 0,
    noise: { black: 0.0012, grey: 0.0045 },
    from: { x: 0.56, y: 0.6, width: 0.68, rollDegrees: 0 },
    to: { x: 0.52, y: 0.6, width: 0.68, rollDegrees: 0 },
    patches: {
      greyCard: patch([646, 520], [755, 510], [768, 614], [658, 626]),
      white90: patch([768, 509], [793, 506], [797, 551], [773, 554]),
      black3: patch([774, 566], [798, 562], [803, 612], [779, 615]),
    },
  },
]

/**
 * The assembly: a flattened programme of pieces of the shots as they look when read right, cut hard but for one
 * dissolve.
 */
export const assembly = {
  id: 'assembly',
  name: 'Ashglaze assembly',
  startTimecode: '01:00:00:00',
  pieces: [
    { shotId: 'yard-cloud', first: 4, count: 40, dissolve: 0 },
    { shotId: 'glaze-shelf', first: 8, count: 36, dissolve: 0 },
    { shotId: 'potter', first: 6, count: 44, dissolve: 0 },
    { shotId: 'window-bench', first: 10, count: 40, dissolve: 0 },
    { shotId: 'apprentice', first: 12, count: 44, dissolve: 16 },
    { shotId: 'market-gamma', first: 5, count: 30, dissolve: 0 },
    { shotId: 'courtyard', first: 0, count: 60, dissolve: 0 },
    { shotId: 'dusk-lantern', first: 14, count: 44, dissolve: 0 },
    { shotId: 'kiln-night', first: 10, count: 50, dissolve: 0 },
  ],
} as const
