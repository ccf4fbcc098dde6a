// Real photographs for teaching and judging, none of them kept here: they come with packages of the system. They are
// split once: what judges is never taught with, and nothing is tuned on it.
import { execFileSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { encodingById } from '@core/colour'
import type { Light } from './scenes'

const folder = '/usr/share/doc/opencv-doc/examples'

export const teachingPhotographs = [
  'data/fruits.jpg',
  'data/home.jpg',
  'data/board.jpg',
  'data/aloeL.jpg',
  'data/butterfly.jpg',
  'data/apple.jpg',
  'data/baboon.jpg',
  'data/smarties.png',
  'data/rubberwhale1.png',
  'data/graf3.png',
] as const
/**
 * More to teach the guess with, from the packages mate-backgrounds, plasma-workspace-wallpapers, python3-skimage and
 * python3-sklearn; nothing is judged on these either.
 */
export const guessTeachingPhotographs: readonly string[] = [
  ...teachingPhotographs,
  ...[
    'Aqua',
    'Blinds',
    'Dune',
    'FreshFlower',
    'Garden',
    'GreenMeadow',
    'LadyBird',
    'RainDrops',
    'Storm',
    'TwoWings',
    'Wood',
    'YellowFlower',
  ].map((name) => `/usr/share/backgrounds/mate/nature/${name}.jpg`),
  ...[
    'BytheWater',
    'ColdRipple',
    'ColorfulCups',
    'DarkestHour',
    'EveningGlow',
    'FallenLeaf',
    'Grey',
    'Kite',
    'OneStandsOut',
    'Path',
    'summer_1am',
  ].map((name) => `/usr/share/wallpapers/${name}/contents/images/2560x1600.jpg`),
  ...['astronaut.png', 'chelsea.png', 'coffee.png', 'motorcycle_left.png', 'rocket.jpg'].map(
    (name) => `/usr/lib/python3/dist-packages/skimage/data/${name}`,
  ),
  ...['china', 'flower'].map((name) => `/usr/lib/python3/dist-packages/sklearn/datasets/images/${name}.jpg`),
]
export const judgingPhotographs = [
  'data/building.jpg',
  'data/leuvenA.jpg',
  'data/squirrel_cls.jpg',
  'data/stuff.jpg',
  'data/orange.jpg',
  'alphamat/input_images/plant.jpg',
] as const

export const photographsAreThere = (): boolean =>
  [...teachingPhotographs, ...judgingPhotographs].every((name) => existsSync(resolve(folder, name)))

/** A finished picture: RGB triples of display codes of 0..1. */
export interface Photograph {
  readonly width: number
  readonly height: number
  readonly codes: Float32Array
}

/** Larger pictures are made smaller: their finest detail is of their own compression. */
const mostWidth = 1600

const read = new Map<string, Photograph>()

/** Throws where the photograph is not installed. */
export function photograph(name: string): Photograph {
  const known = read.get(name)
  if (known) return known
  const path = resolve(folder, name)
  const [fullWidth = 0, fullHeight = 0] = execFileSync(
    'ffprobe',
    ['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'stream=width,height', '-of', 'csv=p=0', path],
    { encoding: 'utf8' },
  )
    .split(',')
    .map(Number)
  const width = Math.min(fullWidth, mostWidth)
  const height = Math.round((fullHeight * width) / fullWidth)
  const smaller = width < fullWidth ? ['-vf', `scale=${width}:${height}:flags=area`] : []
  const bytes = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', path, ...smaller, '-frames:v', '1', '-f', 'rawvideo', '-pix_fmt', 'rgb24', 'pipe:1'],
    { maxBuffer: 1 << 28 },
  )
  const made = { width, height, codes: Float32Array.from(bytes, (b) => b / 255) }
  read.set(name, made)
  return made
}

const grey = 0.18
const srgbLight = encodingById('srgb').curve.decode

/**
 * The light that such a picture may have been made of: its display curve undone and its highlights, which were rolled
 * off, drawn out again so that white lies `topStops` over grey. Scene-linear BT.709.
 */
export function lightOf({ width, height, codes }: Photograph, topStops: number): Light {
  const drawnOut = topStops - Math.log2(1 / grey)
  const data = Float64Array.from(codes, srgbLight)
  for (let i = 0; i < data.length; i += 3) {
    const most = Math.max(data[i]!, data[i + 1]!, data[i + 2]!)
    const share = most > grey ? Math.log2(most / grey) / Math.log2(1 / grey) : 0
    const gain = 2 ** (drawnOut * share * share)
    for (let c = 0; c < 3; c++) data[i + c]! *= gain
  }
  return { width, height, data }
}

export interface Framing {
  /** The size of what is made. */
  readonly width: number
  readonly height: number
  /** Where in the picture, 0..1 of what is left over, and the share of its width that is seen. */
  readonly x: number
  readonly y: number
  readonly share: number
  readonly mirrored: boolean
  /** How far the camera has moved by, in pixels of what is made. */
  readonly movedX: number
  readonly movedY: number
}

/** A part of a picture of RGB triples, between whole pixels as a moving camera sees it. */
export function framed(
  { width, height, data }: { width: number; height: number; data: ArrayLike<number> },
  framing: Framing,
): Light {
  const out = new Float64Array(framing.width * framing.height * 3)
  const aspect = framing.width / framing.height
  const seenWidth = Math.min(width, height * aspect) * framing.share - 2
  const step = seenWidth / framing.width
  const left = framing.x * (width - seenWidth - 2) + framing.movedX * step
  const top = framing.y * (height - seenWidth / aspect - 2) + framing.movedY * step
  const at = (v: number, most: number): number => Math.min(Math.max(v, 0), most - 1.001)
  for (let y = 0, o = 0; y < framing.height; y++) {
    const sy = at(top + y * step, height)
    const iy = Math.floor(sy)
    const fy = sy - iy
    for (let x = 0; x < framing.width; x++) {
      const sx = at(left + (framing.mirrored ? framing.width - 1 - x : x) * step, width)
      const ix = Math.floor(sx)
      const fx = sx - ix
      const i = (iy * width + ix) * 3
      const j = i + width * 3
      for (let c = 0; c < 3; c++, o++)
        out[o] =
          (data[i + c]! * (1 - fx) + data[i + 3 + c]! * fx) * (1 - fy) +
          (data[j + c]! * (1 - fx) + data[j + 3 + c]! * fx) * fy
    }
  }
  return { width: framing.width, height: framing.height, data: out }
}
