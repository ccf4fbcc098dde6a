// The rendering: scene light becomes a picture. The middle is left as it is, a shoulder brings the brightest light of
// the clip to display white, a toe gives depth, and what is brighter than a surface goes to white with its hue held.
import {
  fromOklabInto,
  gamutToGamut,
  luminanceWeights,
  middleGrey,
  oklabOf,
  workingGamut,
  type Gamut,
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
  // Every number has a name of its own: this runs for each node of a lattice, and lists that live for one pixel cost
  // more than all the rest.
  const [rr, rg, rb, gr, gg, gb, br, bg, bb] = toDisplay
  const [wr, wg, wb] = luminance
  const coloured = new Float64Array(3)
  const apply = (pixels: Float64Array): void => {
    for (let i = 0; i < pixels.length; i += 3) {
      const red = axis.light(pixels[i])
      const green = axis.light(pixels[i + 1])
      const blue = axis.light(pixels[i + 2])
      const largest = Math.max(red, green, blue)
      if (!(largest > 0)) {
        pixels[i] = pixels[i + 1] = pixels[i + 2] = 0
        continue
      }
      const brightest = curve(largest)
      const share = clamp01(Math.log2(Math.max(largest, knee) / knee) / reach)
      // The brightest light of the clip is nearly white, whatever its colour.
      const white = mostWhite * share ** 4
      const tonedRed = curve(red)
      const tonedGreen = curve(green)
      const tonedBlue = curve(blue)
      const whiteRed = tonedRed + white * (brightest - tonedRed)
      const whiteGreen = tonedGreen + white * (brightest - tonedGreen)
      const whiteBlue = tonedBlue + white * (brightest - tonedBlue)
      coloured[0] = rr * whiteRed + rg * whiteGreen + rb * whiteBlue
      coloured[1] = gr * whiteRed + gg * whiteGreen + gb * whiteBlue
      coloured[2] = br * whiteRed + bg * whiteGreen + bb * whiteBlue
      giveColour(
        rr * red + rg * green + rb * blue,
        gr * red + gg * green + gb * blue,
        br * red + bg * green + bb * blue,
        (1 - share ** 2) ** 5,
      )
      const most = Math.max(coloured[0], coloured[1], coloured[2], 1e-9)
      const drawnRed = most * draw(coloured[0] / most)
      const drawnGreen = most * draw(coloured[1] / most)
      const drawnBlue = most * draw(coloured[2] / most)
      // What still stands over the peak is made darker, and lets go of some colour, instead of being cut; a neutral is
      // never over it, and is left.
      const colourful = 1 - Math.max(0, Math.min(drawnRed, drawnGreen, drawnBlue) / most) ** 2
      const highest = colourful * top(most) + (1 - colourful) * most
      const dimmed = highest === most ? 1 : (highest / most) ** dimming
      const grey = dimmed * (wr * drawnRed + wg * drawnGreen + wb * drawnBlue)
      const over = dimmed * most - grey
      const kept = over > 1e-6 * peak ? Math.max(0, highest - grey) / over : 1
      pixels[i] = Math.min(peak, Math.max(0, grey + kept * (dimmed * drawnRed - grey)))
      pixels[i + 1] = Math.min(peak, Math.max(0, grey + kept * (dimmed * drawnGreen - grey)))
      pixels[i + 2] = Math.min(peak, Math.max(0, grey + kept * (dimmed * drawnBlue - grey)))
    }
  }
  const [cr, cg, cb, dr, dg, db, er, eg, eb] = space.toCone
  const [lr, lg, lb, ar, ag, ab, hr, hg, hb] = space.toLab
  /** Gives `coloured` the hue of the light before, as far as that is held, and a share of its colourfulness. */
  function giveColour(red: number, green: number, blue: number, share: number): void {
    const longBefore = Math.cbrt(cr * red + cg * green + cb * blue)
    const middleBefore = Math.cbrt(dr * red + dg * green + db * blue)
    const shortBefore = Math.cbrt(er * red + eg * green + eb * blue)
    const hueAlpha = ar * longBefore + ag * middleBefore + ab * shortBefore
    const hueBeta = hr * longBefore + hg * middleBefore + hb * shortBefore
    const strength = length(hueAlpha, hueBeta)
    const long = Math.cbrt(cr * coloured[0] + cg * coloured[1] + cb * coloured[2])
    const middle = Math.cbrt(dr * coloured[0] + dg * coloured[1] + db * coloured[2])
    const short = Math.cbrt(er * coloured[0] + eg * coloured[1] + eb * coloured[2])
    const alpha = ar * long + ag * middle + ab * short
    const beta = hr * long + hg * middle + hb * short
    const chroma = length(alpha, beta)
    // A neutral has no hue to be held.
    if (strength < 1e-6 || chroma < 1e-6) return
    const lightness = lr * long + lg * middle + lb * short
    const lightnessBefore = lr * longBefore + lg * middleBefore + lb * shortBefore
    const held = heldOf(hueAlpha, hueBeta, shape.bleach)
    const mixedAlpha = (held * hueAlpha) / strength + ((1 - held) * alpha) / chroma
    const mixedBeta = (held * hueBeta) / strength + ((1 - held) * beta) / chroma
    const asBefore = lightnessBefore > 1e-6 ? (strength * lightness) / lightnessBefore : chroma
    const wanted = chroma + givenBack * share * (asBefore - chroma)
    const scale = wanted / Math.max(length(mixedAlpha, mixedBeta), 1e-9)
    fromOklabInto(space, lightness, mixedAlpha * scale, mixedBeta * scale, coloured)
  }
  return [curveOperation(axis.place), pixelsOperation(apply, 'displaySignal', 'displayLinear')]
}
