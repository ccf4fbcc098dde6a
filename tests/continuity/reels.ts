// Reels made of views that come again: the camera has moved a little, the light has drifted, somebody walks through.
import type { Frame } from '@core/image'
import { gamutById, transformPixels } from '@core/colour'
import { whiteBalanceMatrix } from '@core/grade'
import type { SetupShot } from '@core/continuity'
import { layoutOf } from '@core/continuity'
import { shoot } from '../guess/camera'
import { framed, lightOf, photograph, type Framing } from '../guess/photographs'
import { plateLight } from '../guess/plate-light'
import { randomSource, type Light } from '../guess/scenes'

export interface MadeReel {
  readonly shots: readonly SetupShot[]
  /** Which set-up each shot is of. */
  readonly setups: readonly number[]
}

const size = { width: 480, height: 270 } as const
const encodings = ['log-420-95', 'log-400-95-a', 'log-407-95', 'log-351-128', 'flat-gamma', 'hlg'] as const

const sceneOf = (name: string): Light => (name.includes('/') ? lightOf(photograph(name), 3) : plateLight(name, 36))

/** A dark shape of the height of a person somewhere in the picture: what moves between two takes. */
function withSomebody(light: Light, random: () => number): Light {
  const data = light.data.slice()
  const [x, width] = [random() * light.width, (0.06 + 0.1 * random()) * light.width]
  const top = (0.2 + 0.3 * random()) * light.height
  const tone = [0.02 + 0.2 * random(), 0.02 + 0.15 * random(), 0.02 + 0.15 * random()]
  for (let v = Math.floor(top); v < light.height; v++)
    for (let u = Math.max(0, Math.floor(x)); u < Math.min(light.width, x + width); u++)
      for (let c = 0; c < 3; c++) data[(v * light.width + u) * 3 + c] = tone[c]!
  return { ...light, data }
}

/** @param scenes to take views of, each at most once: two views of one place may be nearly the same */
export function makeReel(scenes: readonly string[], seed: number): MadeReel {
  const random = randomSource(seed)
  for (let k = 0; k < 5; k++) random()
  const between = (a: number, b: number): number => a + (b - a) * random()
  const encodingId = encodings[Math.floor(random() * encodings.length)]!
  const left = [...scenes]
  const views = Array.from({ length: Math.min(left.length, 3 + Math.floor(random() * 3)) }, () => ({
    light: sceneOf(left.splice(Math.floor(random() * left.length), 1)[0]!),
    share: between(0.55, 0.9),
    x: random(),
    y: random(),
    mirrored: random() < 0.3,
  }))
  const shots: SetupShot[] = []
  const setups: number[] = []
  const length = 8 + Math.floor(random() * 7)
  let last = -1
  for (let n = 0; n < length; n++) {
    // To and fro between two, or on to another.
    const back = setups.at(-2)
    let setup = random() < 0.55 && back !== undefined ? back : Math.floor(random() * views.length)
    if (setup === last) setup = (setup + 1) % views.length
    last = setup
    const view = views[setup]!
    const near = (v: number, by: number): number => Math.min(1, Math.max(0, v + between(-by, by)))
    const framing: Framing = {
      ...size,
      share: view.share * between(0.97, 1.03),
      x: near(view.x, 0.08),
      y: near(view.y, 0.08),
      mirrored: view.mirrored,
      movedX: 0,
      movedY: 0,
    }
    const seen = framed(view.light, framing)
    const lit = { ...seen, data: Float64Array.from(seen.data, (v) => v * 2 ** between(-0.01, 0.01)) }
    const gain = 2 ** between(-0.4, 0.4)
    for (let i = 0; i < lit.data.length; i++) lit.data[i]! *= gain
    transformPixels(whiteBalanceMatrix(gamutById('bt709'), between(-12, 12), between(-3, 3)), lit.data)
    const taken = random() < 0.5 ? withSomebody(lit, random) : lit
    shots.push({ layout: layoutOf(recorded(taken, encodingId, random)), camera: '' })
    setups.push(setup)
  }
  return { shots, setups }
}

const recorded = (light: Light, encodingId: string, random: () => number): Frame =>
  shoot(
    light,
    {
      encodingId,
      range: 'full',
      flagged: 'full',
      bits: 10,
      exposureStops: 0,
      noiseBlack: 0.0008,
      noiseGrey: 0.003,
      noiseTrouble: 0,
      troublePhase: 0,
      troubleRate: 0,
    },
    random,
  )
