import { applyRecipe, defaultGrade, shippedRecipes, stepKindById } from '../grade'
import { parameterFault } from '../grade/step-kind'
import { recipeFacts } from './recipe-facts'

test('at least a dozen recipes ship, each with its own name and a line on when it serves and when not', () => {
  expect(shippedRecipes.length).toBeGreaterThanOrEqual(12)
  expect(new Set(shippedRecipes.map((r) => r.name)).size).toBe(shippedRecipes.length)
  for (const { note } of shippedRecipes) {
    expect(note).toMatch(/^Serves .+\. Not .+\.$/)
    expect(note.length).toBeLessThanOrEqual(300)
  }
})

test.each(shippedRecipes.map((r) => [r.name, r] as const))(
  '%s: ordinary steps within their bounds that do something, measured',
  (_, recipe) => {
    for (const { kind, params } of recipe.steps) {
      const declared = stepKindById(kind)
      for (const [key, parameter] of Object.entries(declared.parameters))
        expect(parameterFault(parameter, params[key])).toBeNull()
      expect(declared.isNeutral(params)).toBe(false)
    }
    const { restraint, skin } = recipeFacts(recipe)
    expect(restraint).toBeGreaterThan(0.2)
    expect(restraint).toBeLessThan(30)
    expect(Object.values(skin).every(Number.isFinite)).toBe(true)
    expect(applyRecipe(defaultGrade('log-420-95'), recipe).steps.length).toBeGreaterThan(0)
  },
)

test('what a card says is so: a grey underlay pales, warm lights warm, nothing moves nothing', () => {
  const of = (id: string): ReturnType<typeof recipeFacts> =>
    recipeFacts(shippedRecipes.find((r) => r.id === `shipped-${id}`)!)
  expect(of('underlay').skin.chromaGain).toBeLessThan(0.95)
  expect(of('night').skin.lumaPercent).toBeLessThan(-15)
  expect(of('neutral').restraint).toBeLessThan(of('night').restraint / 3)
  expect(recipeFacts({ steps: [], regions: [] })).toEqual({
    restraint: 0,
    skin: { hueDegrees: 0, lumaPercent: 0, chromaGain: 1 },
  })
})
