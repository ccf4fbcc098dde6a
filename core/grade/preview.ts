// A mapped preview: what a brighter or wider display would show, brought to the user's own. It changes only what is
// seen.
import { displayById, displayLuminance, gamutById, gamutToGamut, type Display } from '../colour'
import { exactStages } from './compile'
import { curveOperation, matrixOperation, type Operation } from './operation'
import { rolloff, rolloffCurve } from './show/rolloff'
import type { Passes } from './stage'

/** True when `own` cannot show what `display` can. */
export function needsMapping(display: Display, own: Display): boolean {
  return display.peak > own.peak || display.gamutId !== own.gamutId
}

/**
 * The other usual way of looking at a display's video: a phone in daylight (2.2) for what is made for a dim room, and
 * the other way round (2.4). The signal stays; raised to `exponent` it looks on this display as it would there.
 */
export function otherGamma({ eotf }: Display): { readonly gamma: 2.2 | 2.4; readonly exponent: number } {
  const own = Math.log(eotf.decode(0.5)) / Math.log(0.5)
  const gamma = own > 2.3 ? 2.2 : 2.4
  return { gamma, exponent: gamma / own }
}

const plans = new Map<string, Passes>()

/**
 * Passes from 16-bit signal of one display to 16-bit signal of the user's own: light as it is up to 1.5 stops under
 * white, then a shoulder for the rest; colours outside are clipped. Null where none is needed.
 */
export function previewPasses(displayId: string, ownId: string): Passes | null {
  const display = displayById(displayId)
  const own = displayById(ownId)
  if (!needsMapping(display, own)) return null
  const key = `${displayId} ${ownId}`
  const known = plans.get(key)
  if (known) return known
  const curve = rolloffCurve(own.peak * 2 ** -1.5, display.peak, own.peak)
  const operations: Operation[] = [
    ...displayedBy(display),
    matrixOperation(gamutToGamut(gamutById(display.gamutId), gamutById(own.gamutId))),
    rolloff(curve, 0.3),
    curveOperation((v) => own.eotf.encode(Math.min(Math.max(v, 0), own.carriedPeak))),
  ]
  const passes: Passes = {
    decode: Float32Array.from({ length: 65536 }, (_, code) => display.eotf.decode(code / 65535)),
    passes: [{ stages: exactStages(operations) }],
  }
  plans.set(key, passes)
  return passes
}

/** Carried light → display-linear light: the OOTF of HLG, nothing for others. */
function displayedBy(display: Display): readonly Operation[] {
  const { systemGamma, peak } = display
  if (systemGamma === undefined) return []
  return [
    {
      kind: 'gain',
      weights: displayLuminance(display),
      gain: (luminance) => peak * Math.max(luminance, 0) ** (systemGamma - 1),
      blend: 0,
      curve: (v) => v,
    },
  ]
}
