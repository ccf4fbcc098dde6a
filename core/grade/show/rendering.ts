// The rendering: scene light becomes a picture. The middle is left as it is, a shoulder brings the brightest light of
// the clip to display white, a toe gives depth, and what is brighter than a surface goes to white with its hue held.
import { fromOklab, middleGrey, oklabOf, toOklab, type Gamut } from '../../colour'
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
/** A toe of 1 takes half of the light at this, two thousandths of display white. */
const deepestToe = 0.002
/** At the brightest light so much of a colour is gone. */
const mostWhite = 0.92

/** Tone by the largest component: grey exactly itself, slope 1 from the toe to the knee, `peak` at the maximum. */
export function renderingCurve({ maximum, toe }: RenderingShape, peak: number): (x: number) => number {
  const draw = deepestToe * toe
  const drawn = (x: number): number => (x * x * (middleGrey + draw)) / ((x + draw) * middleGrey)
  const shoulder = rolloffCurve(peak * 2 ** -kneeStops, drawn(maximum), peak)
  return (x) => (x > 0 ? shoulder(drawn(x)) : 0)
}

/**
 * Display-linear light that may lie outside the display → display-linear light inside it. Tone acts on the largest
 * component; colours that the display does not have are drawn in (AMPAS TB-2021), so that they keep their drawing; and
 * from the knee to the maximum colour goes to the white of its own brightness. All of it at the hue that the light had,
 * in Oklab, so that fire stays orange and a blue lamp blue.
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
  const apply = (pixels: Float64Array): void => {
    for (let i = 0; i < pixels.length; i += 3) {
      const [r, g, b] = [pixels[i], pixels[i + 1], pixels[i + 2]]
      const largest = Math.max(r, g, b)
      if (!(largest > 0)) {
        pixels[i] = pixels[i + 1] = pixels[i + 2] = 0
        continue
      }
      const tone = curve(largest)
      const inside = (v: number): number => tone * draw(v / largest)
      const share = clamp01(Math.log2(largest / knee) / reach)
      const white = mostWhite * share ** 2
      const [lightness, alpha, beta] = toOklab(space, inside(r), inside(g), inside(b))
      const [, hueAlpha, hueBeta] = toOklab(space, r, g, b)
      const strength = Math.hypot(hueAlpha, hueBeta)
      // A neutral has no hue to be held.
      const chroma = strength > 1e-6 ? (Math.hypot(alpha, beta) * (1 - white)) / strength : 0
      const toward = lightness + white * (Math.cbrt(tone) - lightness)
      const out = fromOklab(space, toward, hueAlpha * chroma, hueBeta * chroma)
      // The largest component stays what tone made it, so that nothing passes the peak and brighter stays brighter.
      const held = tone / Math.max(out[0], out[1], out[2])
      // By channels only where the shoulder acts: below, each channel is what it was.
      const byChannel = shape.bleach * Math.min(1, share * 3)
      const inChannels = [r, g, b].map((v) => curve(Math.max(inside(v) / tone, 0) * largest))
      for (let c = 0; c < 3; c++)
        pixels[i + c] = Math.max(0, out[c] * held) * (1 - byChannel) + inChannels[c] * byChannel
    }
  }
  return [pixelsOperation(apply, 'displayLinear')]
}
