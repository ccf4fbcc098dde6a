import { addRegion, addStep, setParameter, setStep } from './edits'
import { defaultGrade } from './defaults'
import { differences } from './differences'
import { applyRecipe, recipeSteps } from './recipes'

const base = defaultGrade('log-420-95')
const look = setStep(addStep(setParameter(setParameter(base, 'contrast', 'contrast', 1.2), 'exposure', 'exposureStops', 1), 'zone', 'Darks', { centreStops: -3, tintAmount: 0.2 }), 'contrast', { strength: 0.6 })

test('holds what does something in the chosen stations, and no region', () => {
  expect(recipeSteps(look, ['shape', 'look']).map((s) => s.name)).toEqual(['Contrast', 'Darks'])
  expect(recipeSteps(setParameter(addRegion(base).grade, 'region-1-exposure', 'exposureStops', 1), ['level', 'regions'])).toEqual([])
})

test('comes into another grade as ordinary steps: into neutral ones of its kind, else beside what is there', () => {
  const other = defaultGrade('hlg')
  expect(differences(other, applyRecipe(other, recipeSteps(look, ['shape']))).map((d) => d.words)).toEqual(['Contrast 1.00 × → 1.20 ×', 'Contrast, strength 100 % → 60 %', 'Darks added: centre −3.0 stops, tint 0.20 stops'])
  const worked = setParameter(other, 'contrast', 'contrast', 0.9), both = applyRecipe(worked, recipeSteps(look, ['shape']))
  expect(both.steps.filter((s) => s.kind === 'contrast').map((s) => s.params['contrast'])).toEqual([0.9, 1.2])
  expect(new Set(both.steps.map((s) => s.id)).size).toBe(both.steps.length)
})
