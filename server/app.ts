// The HTTP application: guards, routes, errors, and the built web pages.
import { serveStatic } from '@hono/node-server/serve-static'
import { Hono } from 'hono'
import type { ServerContext } from './context'
import { asProblem, Problem, problemResponse } from './problem'
import { carryRoutes } from './routes/carry'
import { encodingRoutes } from './routes/encodings'
import { importRoutes } from './routes/imports'
import { balanceRoutes } from './routes/balance'
import { firstPassRoutes } from './routes/first-pass'
import { matchRoutes } from './routes/match'
import { stillRoutes } from './routes/stills'
import { defaultsRoutes } from './routes/defaults'
import { lookRoutes } from './routes/looks'
import { scenePictureRoutes } from './routes/scene-pictures'
import { lutRoutes } from './routes/luts'
import { pictureRoutes } from './routes/pictures'
import { projectRoutes } from './routes/projects'
import { proxyRoutes } from './routes/proxies'
import { readingRoutes } from './routes/readings'
import { recipeRoutes } from './routes/recipes'
import { recordRoutes } from './routes/record'
import { reelRoutes } from './routes/reel'
import { removalRoutes } from './routes/removal'
import { renderRoutes } from './routes/renders'
import { sheetRoutes } from './routes/sheets'
import { shotRoutes } from './routes/shots'
import { protectiveHeaders, sameSiteOnly } from './security/guard'

export function createApp(context: ServerContext, hosts: ReadonlySet<string>, webFolder: string): Hono {
  const app = new Hono()
  app.use(protectiveHeaders())
  app.use(async (c, next) => {
    const started = performance.now()
    await next()
    context.log.info({
      method: c.req.method,
      path: c.req.path,
      status: c.res.status,
      ms: Math.round(performance.now() - started),
    })
  })
  app.use(sameSiteOnly(hosts))

  const api = new Hono()
  // What may be kept says so itself; all else is asked for anew each time.
  api.use(async (c, next) => {
    await next()
    if (!c.res.headers.has('cache-control')) c.res.headers.set('cache-control', 'no-store')
  })
  api.get('/health', async (c) => {
    await context.pool.query('SELECT 1')
    return c.json({ ok: true })
  })
  for (const routes of [
    projectRoutes,
    reelRoutes,
    readingRoutes,
    importRoutes,
    shotRoutes,
    recordRoutes,
    sheetRoutes,
    carryRoutes,
    recipeRoutes,
    encodingRoutes,
    pictureRoutes,
    proxyRoutes,
    lutRoutes,
    balanceRoutes,
    matchRoutes,
    firstPassRoutes,
    defaultsRoutes,
    lookRoutes,
    scenePictureRoutes,
    stillRoutes,
    renderRoutes,
    removalRoutes,
  ])
    api.route('/', routes(context))
  api.all('*', () => {
    throw new Problem(404, 'not_found', 'There is nothing at this address.')
  })
  app.route('/api', api)

  app.use('/assets/*', async (c, next) => {
    await next()
    if (c.res.status === 200) c.res.headers.set('cache-control', 'public, max-age=31536000, immutable')
  })
  app.use(serveStatic({ root: webFolder }))
  // Every other address is a view of the application.
  app.get('*', serveStatic({ root: webFolder, path: 'index.html' }))
  app.onError((error, c) => {
    // What frees room needs a little of it.
    if (asProblem(error).code === 'disk_full') void context.space.giveUpBallast().catch(() => undefined)
    return problemResponse(c, error, context.log)
  })
  return app
}
