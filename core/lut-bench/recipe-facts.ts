// What a recipe does, measured on colours that do not depend on a picture: how far it moves them, and where skin
// drifts.
import { deltaE2000, displayToLab, gamutById, gamutToGamut, transform, workingGamut, type Vector3 } from '../colour'
import { applyRecipe, buildChain, defaultGrade, evaluateDirect, type RecipeContent } from '../grade'
import { shiftOf } from './inspect'
import { referenceColours } from './reference-colours'

export interface RecipeFacts {
  /** Mean CIEDE2000 of the reference colours: how far the recipe moves a picture. */
  readonly restraint: number
  /** Over skins from very light to very deep. */
  readonly skin: { readonly hueDegrees: number; readonly lumaPercent: number; readonly chromaGain: number }
}

const displayId = 'bt709-2.4'
const nowhere = { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 }
const matrix = gamutToGamut(gamutById('bt709'), workingGamut)

/** Regions act nowhere here: where they lie is the picture's. LUTs that are not at hand do nothing. */
export function recipeFacts({ steps }: RecipeContent): RecipeFacts {
  const plain = defaultGrade('linear', 'ap1')
  const made = applyRecipe(plain, { steps: steps.filter((s) => s.regionId === undefined), regions: [] })
  const light = Float64Array.from(
    referenceColours.flatMap(({ linear }) => transform(matrix, linear) as unknown as number[]),
  )
  const through = (grade: typeof plain): Float64Array => {
    const pixels = light.slice()
    evaluateDirect(
      buildChain(grade, () => undefined),
      pixels,
      nowhere,
    )
    return pixels
  }
  const before = through(plain)
  const after = through(made)
  const lab = displayToLab(displayId)
  const at = (p: Float64Array, i: number): Vector3 => [p[i * 3], p[i * 3 + 1], p[i * 3 + 2]]
  const moved = referenceColours.map((_, i) => deltaE2000(lab(...at(before, i)), lab(...at(after, i))))
  const skins = referenceColours.flatMap((c, i) => (c.kind === 'skin' ? [shiftOf(at(before, i), at(after, i))] : []))
  const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length
  return {
    restraint: mean(moved),
    skin: {
      hueDegrees: mean(skins.map((s) => s.hueDegrees)),
      lumaPercent: mean(skins.map((s) => s.lumaPercent)),
      chromaGain: mean(skins.map((s) => s.chromaGain)),
    },
  }
}
