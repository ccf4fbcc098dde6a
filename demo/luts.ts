// LUTs of our own making that come with the demo: looks, and conversions from two of its cameras.
import { bakeLut } from '@core/bake'
import { printCube } from '@core/formats'
import {
  defaultGrade,
  setParameter,
  setShow,
  setStep,
  shippedRecipes,
  applyRecipe,
  type GradeDocument,
} from '@core/grade'

export interface DemoLut {
  readonly name: string
  readonly folder: string
  readonly text: () => string
}

const none = (): undefined => undefined
const onTop = (grade: GradeDocument): GradeDocument => ({
  ...grade,
  steps: grade.steps.map((s) => ({ ...s, side: 'display' as const })),
})
const withRecipe = (grade: GradeDocument, id: string): GradeDocument =>
  applyRecipe(grade, shippedRecipes.find((r) => r.id === `shipped-${id}`) ?? { steps: [], regions: [] })
const picture = defaultGrade('gamma-2.4', 'bt709')
const lut = (folder: string, name: string, grade: () => GradeDocument, size: number): DemoLut => ({
  folder,
  name,
  text: () => printCube(bakeLut(grade(), none, size, name), ['Made with Pale Meridian for its demo.']),
})

export const demoLuts: readonly DemoLut[] = [
  lut('Ashglaze looks', 'Clay and slate', () => onTop(withRecipe(picture, 'split')), 17),
  lut('Ashglaze looks', 'Kiln silver', () => onTop(withRecipe(picture, 'silver')), 17),
  lut('Ashglaze looks', 'Pale dust', () => onTop(withRecipe(picture, 'pastel')), 17),
  lut(
    'Ashglaze conversions',
    'Log 351-128 to video',
    () => setShow(defaultGrade('log-351-128'), { method: 'rolloff' }),
    33,
  ),
  lut(
    'Ashglaze conversions',
    'Log 420-95 to video, dense',
    () =>
      setStep(
        setParameter(setShow(defaultGrade('log-420-95'), { method: 'print' }), 'saturation', 'saturation', 1.15),
        'saturation',
        { side: 'display' },
      ),
    33,
  ),
]
