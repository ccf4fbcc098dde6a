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

export interface DemoShot {
  readonly id: string
  readonly name: string
  readonly scene: string
  readonly camera: string
  readonly encodingId: string
  readonly gamutId: string
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

export const footage = { width: 960, height: 540, frames: 72, rate: 24, seed: 1873 } as const

const neutral = { temperatureMired: 0, tint: 0 } as const
const plate = { width: 1280, height: 720 } as const
const patch = (...corners: readonly (readonly [number, number])[]): Patch => corners.map(([x, y]) => [x / plate.width, y / plate.height] as const)

export const demoShots: readonly DemoShot[] = [
  {
    id: 'glaze-shelf', name: 'Glaze shelf', scene: 'Workshop', camera: 'Tern 40', encodingId: 'log-420-95', gamutId: 'w766', leadFrame: 30,
    exposureErrorStops: 0, neutralisedBy: neutral, driftStops: 0, noise: { black: 0.0006, grey: 0.0024 },
    from: { x: 0.475, y: 0.515, width: 0.87, rollDegrees: 0 }, to: { x: 0.52, y: 0.505, width: 0.87, rollDegrees: 0 },
    patches: {
      greyCard: patch([122, 480], [206, 482], [204, 564], [120, 561]),
      white90: patch([226, 476], [247, 477], [246, 514], [225, 513]),
      black3: patch([224, 534], [243, 535], [242, 570], [223, 568]),
    },
  },
  {
    id: 'window-bench', name: 'Window bench', scene: 'Workshop', camera: 'Osier 2', encodingId: 'log-400-95-a', gamutId: 'w684', leadFrame: 40,
    exposureErrorStops: 0, neutralisedBy: neutral, driftStops: 0.25, noise: { black: 0.0005, grey: 0.0020 },
    from: { x: 0.47, y: 0.53, width: 0.92, rollDegrees: 0.6 }, to: { x: 0.52, y: 0.5, width: 0.9, rollDegrees: -0.6 },
    patches: {
      greyCard: patch([262, 594], [366, 600], [334, 678], [228, 668]),
      white90: patch([397, 595], [418, 597], [401, 632], [381, 629]),
      black3: patch([374, 646], [396, 648], [376, 685], [357, 681]),
    },
  },
  {
    id: 'potter', name: 'Potter at the bench', scene: 'Portraits', camera: 'Brindle C', encodingId: 'log-351-128', gamutId: 'w740', leadFrame: 24,
    exposureErrorStops: -0.7, neutralisedBy: { temperatureMired: 4, tint: 8 }, driftStops: 0, noise: { black: 0.0007, grey: 0.0030 },
    from: { x: 0.49, y: 0.5, width: 0.95, rollDegrees: 0 }, to: { x: 0.505, y: 0.515, width: 0.9, rollDegrees: 0.4 },
    patches: {
      greyCard: patch([870, 558], [1000, 563], [998, 680], [866, 671]),
      white90: patch([1025, 556], [1056, 558], [1054, 616], [1023, 613]),
      black3: patch([1023, 638], [1053, 641], [1051, 692], [1021, 688]),
      skin: patch([612, 340], [655, 345], [650, 385], [614, 380]),
    },
  },
]

/** The plate each shot is taken from, by the name of its scene description. */
export const plateOf: Readonly<Record<string, string>> = { 'glaze-shelf': 'glaze-shelf', 'window-bench': 'window-bench', potter: 'portrait' }
