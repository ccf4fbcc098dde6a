// Recipes: list, keep, remove.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { localActor, type ServerContext } from '../context'
import { deleteRecipe, insertRecipe, listRecipes } from '../db/recipes'
import { notFound, Problem } from '../problem'
import { largeBody, uuidParam } from './params'

export const recipeRoutes = ({ pool, workers }: ServerContext): Hono =>
  new Hono()
    .get('/recipes', async (c) => c.json(await listRecipes(pool)))
    .post('/recipes', bodyLimit({ maxSize: 512 * 1024 }), async (c) => {
      const recipe = await largeBody(c, workers, 'recipe')
      const kept = await insertRecipe(pool, { ...recipe, name: recipe.name.trim() }, localActor)
      if (!kept)
        throw new Problem(409, 'taken', `There is another recipe called "${recipe.name.trim()}".`, {
          field: 'name',
          hint: 'Give this one another name, or remove the other.',
        })
      return c.json(kept, 201)
    })
    .delete('/recipes/:id', async (c) => {
      if (!(await deleteRecipe(pool, uuidParam(c, 'id', 'recipe')))) throw notFound('recipe')
      return c.body(null, 204)
    })
