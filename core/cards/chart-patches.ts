// The chart of 24 patches that photographers use: its published colours, CIE L*a*b* under D50 for the 2° observer, in
// rows from the upper left (mean of many charts made before November 2014).
import {
  bradford,
  labFromXyz,
  multiply,
  rgbToXyz,
  transform,
  workingGamut,
  xyzOf,
  invert,
  type Vector3,
} from '../colour'

export interface ChartPatch {
  readonly name: string
  readonly lab: Vector3
}

export const chartColumns = 6
export const chartRows = 4

export const chartPatches: readonly ChartPatch[] = [
  { name: 'dark skin', lab: [37.986, 13.555, 14.059] },
  { name: 'light skin', lab: [65.711, 18.13, 17.81] },
  { name: 'blue sky', lab: [49.927, -4.88, -21.925] },
  { name: 'foliage', lab: [43.139, -13.095, 21.905] },
  { name: 'blue flower', lab: [55.112, 8.844, -25.399] },
  { name: 'bluish green', lab: [70.719, -33.397, -0.199] },
  { name: 'orange', lab: [62.661, 36.067, 57.096] },
  { name: 'purplish blue', lab: [40.02, 10.41, -45.964] },
  { name: 'moderate red', lab: [51.124, 48.239, 16.248] },
  { name: 'purple', lab: [30.325, 22.976, -21.587] },
  { name: 'yellow green', lab: [72.532, -23.709, 57.255] },
  { name: 'orange yellow', lab: [71.941, 19.363, 67.857] },
  { name: 'blue', lab: [28.778, 14.179, -50.297] },
  { name: 'green', lab: [55.261, -38.342, 31.37] },
  { name: 'red', lab: [42.101, 53.378, 28.19] },
  { name: 'yellow', lab: [81.733, 4.039, 79.819] },
  { name: 'magenta', lab: [51.935, 49.986, -14.574] },
  { name: 'cyan', lab: [51.038, -28.631, -28.638] },
  { name: 'white', lab: [96.539, -0.425, 1.186] },
  { name: 'neutral 8', lab: [81.257, -0.638, -0.335] },
  { name: 'neutral 6.5', lab: [66.766, -0.734, -0.504] },
  { name: 'neutral 5', lab: [50.867, -0.153, -0.27] },
  { name: 'neutral 3.5', lab: [35.656, -0.421, -1.231] },
  { name: 'black', lab: [20.461, -0.079, -0.973] },
]
/** The greys that exposure and white are read from: white may be clipped, and black holds flare. */
export const readGreys = [19, 20, 21, 22] as const

const d50 = xyzOf({ x: 0.3457, y: 0.3585 })
const workingWhite = xyzOf(workingGamut.white)
const toD50 = multiply(bradford(workingWhite, d50), rgbToXyz(workingGamut))
const fromD50 = invert(toD50)

/** L*a*b* under D50 of working-linear light, in which a perfect white is 1. */
export const labOfLight = (light: Vector3): Vector3 => labFromXyz(transform(toD50, light), d50)

/** Working-linear light of a colour under the working white, a perfect white 1 (CIE 15:2018, 8.2.1, reversed). */
export function lightOfLab([l, a, b]: Vector3): Vector3 {
  const y = (l + 16) / 116
  const back = (f: number): number => (f ** 3 > 216 / 24389 ? f ** 3 : (116 * f - 16) / (24389 / 27))
  return transform(fromD50, [back(y + a / 500) * d50[0], back(y) * d50[1], back(y - b / 200) * d50[2]])
}
