// The rendering: scene light becomes a picture. The middle is left as it is, a shoulder brings the brightest light of
// the clip to display white, a toe gives depth, and what is brighter than a surface goes to white with its hue held.
import { fromOklab, luminanceWeights, middleGrey, oklabOf, toOklab, type Gamut } from '../../colour'
import { clamp01 } from '../../numbers'
import { pixelsOperation, type Operation } from '../operation'
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
const purity = { threshold: 0.85, limit: 1.45 } as const
/** How much of the norm that tone acts on is the largest component; the rest is luminance. */
const ofLargest = 0.7
/** A channel that stands higher than this share of the peak is held under it. */
const topKnee = 0.75
/** A toe of 1 takes half of the light at this, two thousandths of display white. */
const deepestToe = 0.002
/** At the brightest light so much of a colour is gone. */
const mostWhite = 0.8

/** Tone by the norm: grey exactly itself, slope 1 from the toe to the knee, `peak` at the maximum. */
export function renderingCurve({ maximum, toe }: RenderingShape, peak: number): (x: number) => number {
  const draw = deepestToe * toe
  const drawn = (x: number): number => (x * x * (middleGrey + draw)) / ((x + draw) * middleGrey)
  const shoulder = rolloffCurve(peak * 2 ** -kneeStops, drawn(maximum), peak)
  return (x) => (x > 0 ? shoulder(drawn(x)) : 0)
}

/**
 * Display-linear light that may lie outside the display → display-linear light inside it. Colours that the display does
 * not have are drawn in (AMPAS TB-2021), so that they keep their drawing; tone acts on a norm between the largest
 * component and luminance; what then still stands over the peak lets go of colour instead of being cut; and from the
 * knee to the maximum colour goes to the white of its own brightness. All of it at the hue that the light had, in
 * Oklab: a blue lamp stays blue, but orange goes to white by way of salmon, which does not suit fire.
 */
export function rendering(
  shape: RenderingShape,
  display: { readonly gamut: Gamut; readonly peak: number },
): readonly Operation[] {
  const { peak } = display
  const curve = renderingCurve(shape, peak)
  const draw = compressedPurity(purity.threshold, purity.limit)
  const knee = peak * 2 ** -kneeStops
  const reach = Math.max(Math.log2(shape.maximum / knee), kneeStops)
  const space = oklabOf(display.gamut)
  const weights = luminanceWeights(display.gamut)
  const top = rolloffCurve(peak * topKnee, peak * 2, peak)
  const apply = (pixels: Float64Array): void => {
    for (let i = 0; i < pixels.length; i += 3) {
      const [r, g, b] = [pixels[i], pixels[i + 1], pixels[i + 2]]
      const largest = Math.max(r, g, b)
      if (!(largest > 0)) {
        pixels[i] = pixels[i + 1] = pixels[i + 2] = 0
        continue
      }
      const drawn = [r, g, b].map((v) => largest * draw(v / largest)) as [number, number, number]
      const luminance = weights[0] * drawn[0] + weights[1] * drawn[1] + weights[2] * drawn[2]
      // Between the largest component, which alone would make fire dull, and luminance, which alone would burn it out.
      const norm = ofLargest * largest + (1 - ofLargest) * luminance
      const gain = curve(norm) / norm
      const share = clamp01(Math.log2(norm / knee) / reach)
      const most = largest * gain
      const grey = luminance * gain
      // What still stands over the peak lets go of colour instead of being cut.
      const kept = most - grey > 1e-6 * peak ? (top(most) - grey) / (most - grey) : 1
      const shown = drawn.map((v) => grey + kept * (v * gain - grey)) as [number, number, number]
      const white = mostWhite * share ** 3
      const [lightness, alpha, beta] = toOklab(space, shown[0], shown[1], shown[2])
      const [, hueAlpha, hueBeta] = toOklab(space, r, g, b)
      const strength = Math.hypot(hueAlpha, hueBeta)
      // A neutral has no hue to be held.
      const chroma = strength > 1e-6 ? (Math.hypot(alpha, beta) * (1 - white)) / strength : 0
      const toward = lightness + white * (Math.cbrt(curve(norm)) - lightness)
      const out = fromOklab(space, toward, hueAlpha * chroma, hueBeta * chroma)
      // Channel by channel only where the shoulder acts: below, each is what it was.
      const byChannel = shape.bleach * Math.min(1, share * 3)
      for (let c = 0; c < 3; c++)
        pixels[i + c] = Math.min(peak, Math.max(0, out[c]) * (1 - byChannel) + curve(Math.max(0, drawn[c])) * byChannel)
    }
  }
  return [pixelsOperation(apply, 'displayLinear')]
}
