// The rendering: scene light becomes a picture. The middle is left as it is, a shoulder brings the brightest light of
// the clip to display white, a toe gives depth, and what is brighter than a surface goes to white with its hue held.
import {
  fromOklab,
  gamutToGamut,
  luminanceWeights,
  middleGrey,
  oklabOf,
  toOklab,
  transform,
  workingGamut,
  type Gamut,
  type Vector3,
} from '../../colour'
import { clamp01 } from '../../numbers'
import { curveOperation, pixelsOperation, type Operation } from '../operation'
import { compressedPurity } from './gamut-compression'
import { rolloffCurve } from './rolloff'

export interface RenderingShape {
  /** The light, display-linear, that becomes the peak. */
  readonly maximum: number
  /** 0..1: how deep the toe draws the darkest tones. */
  readonly toe: number
  /** 0..1: how much of bright colour goes to white channel by channel, as film lets fire turn yellow. */
  readonly bleach: number
}

/** So many stops under the peak the shoulder begins: over a face's highlights, which are left as they are. */
const kneeStops = 1.25
/** Purer than this share of the purest, a colour is drawn in; so far outside the display it comes to its edge. */
const purity = { threshold: 0.9, limit: 1.4 } as const
/** Of the colourfulness that tone took from light just over the knee, so much is given back. */
const givenBack = 0.75
/** What the eye sees is about this root of light. */
const latticePower = 2.4
/** At the maximum so much of a colour is gone. */
const mostWhite = 0.8
/** A channel that stands higher than this share of the peak is held under it. */
const topKnee = 0.9
/** So much of that is done by making it darker; the rest by letting go of colour, which keeps its brightness. */
const dimming = 0.8
/** Channel by channel warm light turns to yellow, as fire is seen; so much is let go of its hue, and of any other. */
const released = { warm: 2.9, other: 0.4 } as const
/** Warm: within so many degrees of this hue in Oklab. */
const warm = { degrees: 48, width: 40 } as const
/** A toe of 1 takes half of the light at this, two thousandths of display white. */
const deepestToe = 0.002
/** Tone by the norm: grey exactly itself, slope 1 from the toe to the knee, `peak` at the maximum. */
export function renderingCurve({ maximum, toe }: RenderingShape, peak: number): (x: number) => number {
  const draw = deepestToe * toe
  const drawn = (x: number): number => (x * x * (middleGrey + draw)) / ((x + draw) * middleGrey)
  const shoulder = rolloffCurve(peak * 2 ** -kneeStops, drawn(maximum), peak)
  return (x) => (x > 0 ? shoulder(drawn(x)) : 0)
}

/** Where light stands on the axis 0..1 on which a lattice may have even nodes, and back. */
interface LightAxis {
  readonly place: (light: number) => number
  readonly light: (place: number) => number
}

/** So much of the axis is what the eye sees of the shown picture; the rest are stops over the knee. */
const ofShown = 0.87
const tableSize = 8192
const stepStops = 1 / 512

/** A picture of even steps for the eye, drawn out where the shoulder presses much light together. */
function axisOf(shape: RenderingShape, peak: number): LightAxis {
  const curve = renderingCurve(shape, peak)
  const knee = peak * 2 ** -kneeStops
  const reach = reachOf(shape, knee)
  const place = (light: number): number => {
    if (!(light > 0)) return 0
    const over = clamp01(Math.log2(Math.max(light, knee) / knee) / reach)
    return ofShown * (curve(light) / peak) ** (1 / latticePower) + (1 - ofShown) * over * over
  }
  // Even places: the light of each is found between those of many lights, in stops.
  const [least, most] = [-16, Math.log2(knee) + reach]
  const lights = new Float64Array(tableSize + 1)
  let stops = least
  let [before, here] = [0, place(2 ** stops)]
  for (let n = 1; n <= tableSize; n++) {
    while (here < n / tableSize && stops < most) {
      before = here
      stops = Math.min(most, stops + stepStops)
      here = place(2 ** stops)
    }
    const into = here > before ? clamp01((n / tableSize - before) / (here - before)) : 1
    lights[n] = 2 ** (stops - (1 - into) * stepStops)
  }
  return {
    place,
    light: (at) => {
      const x = clamp01(at) * tableSize
      const n = Math.min(tableSize - 1, Math.floor(x))
      // Under the first places light grows by the power alone.
      if (n < 8) return lights[8] * (x / 8) ** latticePower
      return lights[n] + (x - n) * (lights[n + 1] - lights[n])
    },
  }
}
const reachOf = ({ maximum }: RenderingShape, knee: number): number => Math.max(Math.log2(maximum / knee), kneeStops)

/** Math.hypot guards against overflow, which costs more than all else here. */
const length = (a: number, b: number): number => Math.sqrt(a * a + b * b)

/** Share of its hue that a light keeps, by where it lies in Oklab. */
function heldOf(alpha: number, beta: number, bleach: number): number {
  const away = ((((Math.atan2(beta, alpha) * 180) / Math.PI - warm.degrees + 540) % 360) - 180) / warm.width
  return clamp01(1 - bleach * (released.other + (released.warm - released.other) * Math.exp(-away * away)))
}

/**
 * Working-linear light → display-linear light inside the display. Tone acts on the channels of the wide working gamut,
 * in which even a saturated light holds some of all: bright light goes to white, fire by way of yellow. The hue that
 * the light had, in Oklab, is put back, warm light's least: a blue lamp stays blue. Colours that the display does not
 * have are drawn in (AMPAS TB-2021), so that they keep their drawing.
 */
export function rendering(
  shape: RenderingShape,
  display: { readonly gamut: Gamut; readonly peak: number },
): readonly Operation[] {
  const key = JSON.stringify([shape.maximum, shape.toe, shape.bleach, display.gamut.id, display.peak])
  const known = made.get(key)
  if (known) return known
  // A dragged control passes through many: only the last few are worth keeping.
  if (made.size >= mostMade) made.clear()
  const operations = makeRendering(shape, display)
  made.set(key, operations)
  return operations
}

const made = new Map<string, readonly Operation[]>()
const mostMade = 64

function makeRendering(
  shape: RenderingShape,
  display: { readonly gamut: Gamut; readonly peak: number },
): readonly Operation[] {
  const { peak } = display
  const curve = renderingCurve(shape, peak)
  const draw = compressedPurity(purity.threshold, purity.limit)
  const toDisplay = gamutToGamut(workingGamut, display.gamut)
  const space = oklabOf(display.gamut)
  const luminance = luminanceWeights(display.gamut)
  const knee = peak * 2 ** -kneeStops
  const reach = reachOf(shape, knee)
  const top = rolloffCurve(peak * topKnee, peak * 2, peak)
  const axis = axisOf(shape, peak)
  const apply = (pixels: Float64Array): void => {
    for (let i = 0; i < pixels.length; i += 3) {
      const light: Vector3 = [axis.light(pixels[i]), axis.light(pixels[i + 1]), axis.light(pixels[i + 2])]
      const largest = Math.max(light[0], light[1], light[2])
      if (!(largest > 0)) {
        pixels[i] = pixels[i + 1] = pixels[i + 2] = 0
        continue
      }
      const toned: Vector3 = [curve(light[0]), curve(light[1]), curve(light[2])]
      const brightest = curve(largest)
      const share = clamp01(Math.log2(Math.max(largest, knee) / knee) / reach)
      // The brightest light of the clip is nearly white, whatever its colour.
      const white = mostWhite * share ** 4
      const whitened = transform(toDisplay, [
        toned[0] + white * (brightest - toned[0]),
        toned[1] + white * (brightest - toned[1]),
        toned[2] + white * (brightest - toned[2]),
      ])
      const held = withColour(whitened, transform(toDisplay, light), (1 - share ** 2) ** 5)
      const most = Math.max(held[0], held[1], held[2], 1e-9)
      const drawn: Vector3 = [most * draw(held[0] / most), most * draw(held[1] / most), most * draw(held[2] / most)]
      // What still stands over the peak is made darker, and lets go of some colour, instead of being cut; a neutral is
      // never over it, and is left.
      const colourful = 1 - Math.max(0, Math.min(drawn[0], drawn[1], drawn[2]) / most) ** 2
      const highest = colourful * top(most) + (1 - colourful) * most
      const dimmed = (highest / most) ** dimming
      const grey = dimmed * (luminance[0] * drawn[0] + luminance[1] * drawn[1] + luminance[2] * drawn[2])
      const over = dimmed * most - grey
      const kept = over > 1e-6 * peak ? Math.max(0, highest - grey) / over : 1
      for (let c = 0; c < 3; c++) pixels[i + c] = Math.min(peak, Math.max(0, grey + kept * (dimmed * drawn[c] - grey)))
    }
  }
  /** A colour with the hue that it had, as far as that is held, and a share of its colourfulness of before. */
  function withColour(colour: Vector3, before: Vector3, share: number): Vector3 {
    const [lightnessBefore, hueAlpha, hueBeta] = toOklab(space, before[0], before[1], before[2])
    const strength = length(hueAlpha, hueBeta)
    const [lightness, alpha, beta] = toOklab(space, colour[0], colour[1], colour[2])
    const chroma = length(alpha, beta)
    // A neutral has no hue to be held.
    if (strength < 1e-6 || chroma < 1e-6) return colour
    const held = heldOf(hueAlpha, hueBeta, shape.bleach)
    const mixedAlpha = (held * hueAlpha) / strength + ((1 - held) * alpha) / chroma
    const mixedBeta = (held * hueBeta) / strength + ((1 - held) * beta) / chroma
    const asBefore = lightnessBefore > 1e-6 ? (strength * lightness) / lightnessBefore : chroma
    const wanted = chroma + givenBack * share * (asBefore - chroma)
    const scale = wanted / Math.max(length(mixedAlpha, mixedBeta), 1e-9)
    return fromOklab(space, lightness, mixedAlpha * scale, mixedBeta * scale)
  }
  return [curveOperation(axis.place), pixelsOperation(apply, 'displaySignal', 'displayLinear')]
}
