// Queries about recipes.
import { presentRegion, type Recipe, type RecipeRegion } from '@core/grade'
import type { Queryable } from './pool'

export async function listRecipes(db: Queryable): Promise<readonly Recipe[]> {
  const { rows } = await db.query<Recipe>('SELECT id, name, note, steps, regions FROM recipes ORDER BY name LIMIT 1000')
  return rows.map(present)
}

/** Recipes kept by an earlier version hold regions of its own form. */
const present = (recipe: Recipe): Recipe => ({
  ...recipe,
  regions: recipe.regions.map((r) => presentRegion(r) as RecipeRegion),
})

/** Undefined when the name is taken. */
export async function insertRecipe(
  db: Queryable,
  { name, note, steps, regions }: Omit<Recipe, 'id'>,
  actor: string,
): Promise<Recipe | undefined> {
  const { rows } = await db.query<Recipe>(
    'INSERT INTO recipes (name, note, steps, regions, actor) VALUES ($1, $2, $3, $4, $5) ON CONFLICT ' +
      '(name) DO NOTHING RETURNING id, name, note, steps, regions',
    [name, note, JSON.stringify(steps), JSON.stringify(regions), actor],
  )
  return rows[0]
}

export async function deleteRecipe(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM recipes WHERE id = $1', [id])
  return rowCount === 1
}
