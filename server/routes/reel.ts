// The Reel: a project's shots, scenes and running work; changes to many shots; cutting and joining.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { editListLimits, eventRanges, parseEdl, parseOtio } from '@core/formats'
import { localActor, type ServerContext } from '../context'
import { projectDefaults } from '../db/defaults'
import { momentsOf } from '../db/leads'
import { findMedia, findSurvey } from '../db/media'
import { lockProjectShots } from '../db/locks'
import { transaction } from '../db/pool'
import { findProject } from '../db/projects'
import { dropEmptyScenes, listScenes, lockShots, removeShots, reorder } from '../db/reel'
import { linkShots, unlinkShots } from '../db/setups'
import { findShot, listShots } from '../db/shots'
import { changeShots, cutShot, joinShots } from '../services/reel'
import { setupReader } from '../services/setups'
import { notFound, Problem } from '../problem'
import { largeBody, hashParam, oneOf, uuidParam, wholeNumber } from './params'
import { requireSeen } from './unchanged'

/** So many shots of a reel are answered with at once; `next` says where to go on. */
const reelPage = 200
const mostPosition = 100_000_000
const body = bodyLimit({ maxSize: 1024 * 1024 })
const listBody = bodyLimit({ maxSize: editListLimits.characters })

export function reelRoutes(context: ServerContext): Hono {
  const { pool, workers } = context
  const setups = setupReader(context)
  return (
    new Hono()
      .get('/projects/:id/reel', async (c) => {
        const project = await findProject(pool, uuidParam(c, 'id', 'project'))
        if (!project) throw notFound('project')
        const after = wholeNumber(c.req.query('after') ?? '0', 'after', mostPosition)
        const limit = wholeNumber(c.req.query('limit') ?? String(reelPage), 'limit', reelPage)
        const [shots, scenes, defaults] = await Promise.all([
          listShots(pool, project.id, after, limit),
          listScenes(pool, project.id),
          projectDefaults(pool, project.id),
        ])
        const last = shots.at(-1)
        return c.json({ project, shots, scenes, defaults, next: last && shots.length === limit ? last.position : null })
      })
      .get('/projects/:id/moments', async (c) => {
        const project = await findProject(pool, uuidParam(c, 'id', 'project'))
        if (!project) throw notFound('project')
        return c.json(await momentsOf(pool, project.id))
      })
      .get('/projects/:id/setups', async (c) => {
        const project = await findProject(pool, uuidParam(c, 'id', 'project'))
        if (!project) throw notFound('project')
        const scene = c.req.query('scene') ?? 'all'
        const shots = await listShots(pool, project.id, 0, reelPage)
        return c.json(await setups(shots.filter((s) => scene === 'all' || (s.sceneId ?? 'none') === scene)))
      })
      .post('/shots/changes', body, async (c) => {
        const change = await largeBody(c, workers, 'shotChanges')
        await transaction(pool, (db) => changeShots(db, change, localActor))
        return c.body(null, 204)
      })
      .post('/shots/link', body, async (c) => {
        const { shotIds } = await largeBody(c, workers, 'linkShots')
        if (!(await transaction(pool, (db) => linkShots(db, shotIds))))
          throw new Problem(422, 'invalid', 'The shots are not all there, or not of one project.', {
            field: 'shotIds',
            hint: 'Load the reel again and choose them anew.',
          })
        return c.body(null, 204)
      })
      .post('/shots/unlink', body, async (c) => {
        const { shotIds } = await largeBody(c, workers, 'unlinkShots')
        await transaction(pool, (db) => unlinkShots(db, shotIds))
        return c.body(null, 204)
      })
      .post('/shots/:id/cut', body, async (c) => {
        const id = uuidParam(c, 'id', 'shot')
        const cut = await largeBody(c, workers, 'cutShot')
        const seen = requireSeen(c)
        return c.json({ shotIds: await transaction(pool, (db) => cutShot(db, id, cut, localActor, seen)) })
      })
      .post('/shots/join', body, async (c) => {
        const { shotIds } = await largeBody(c, workers, 'joinShots')
        const id = await transaction(pool, (db) => joinShots(db, shotIds))
        return c.json(await findShot(pool, id))
      })
      .post('/projects/:id/order', body, async (c) => {
        const projectId = uuidParam(c, 'id', 'project')
        const { shotIds, beforeId } = await largeBody(c, workers, 'moveShots')
        await transaction(pool, async (db) => {
          await lockProjectShots(db, projectId)
          const shots = await lockShots(db, beforeId ? [...shotIds, beforeId] : shotIds)
          if (shots.length < shotIds.length || shots.some((s) => s.projectId !== projectId)) throw notFound('shot')
          if (beforeId && shotIds.includes(beforeId))
            throw new Problem(422, 'invalid', 'A shot cannot stand before itself.', { field: 'beforeId' })
          await reorder(db, projectId, shotIds, beforeId ?? null)
        })
        return c.body(null, 204)
      })
      .post('/shots/remove', body, async (c) => {
        const { shotIds } = await largeBody(c, workers, 'removeShots')
        await transaction(pool, async (db) => {
          const shots = await lockShots(db, shotIds)
          await removeShots(db, shotIds)
          for (const projectId of new Set(shots.map((s) => s.projectId))) await dropEmptyScenes(db, projectId)
        })
        return c.body(null, 204)
      })
      .get('/media/:hash/cuts', async (c) => {
        const survey = await findSurvey(pool, hashParam(c, 'hash', 'clip'))
        if (!survey)
          throw new Problem(409, 'not_surveyed', 'The clip is still being looked through.', {
            hint: 'The Reel shows how far it is.',
          })
        return c.json(survey.cuts)
      })
      // An edit list's events as pieces of the clip; nothing is changed by asking.
      .post('/media/:hash/edit-list', listBody, async (c) => {
        const media = await findMedia(pool, hashParam(c, 'hash', 'clip'))
        if (!media) throw notFound('clip')
        const kind = oneOf(c.req.query('kind'), 'kind', ['edl', 'otio'] as const)
        const handles = wholeNumber(c.req.query('handles') ?? '0', 'handles', 1000)
        const text = await c.req.text()
        const { rateNumerator, rateDenominator, startTimecode, frameCount } = media.facts
        const events =
          kind === 'edl'
            ? startedEdl(text, media.facts, startTimecode)
            : parseOtio(text, rateNumerator / rateDenominator)
        const pieces = eventRanges(events, frameCount, handles)
        if (pieces.length === 0)
          throw new Problem(422, 'outside', 'No event of the list lies within the clip.', {
            hint: 'Is it the list of this programme?',
          })
        return c.json({ pieces, outside: events.length - pieces.length })
      })
  )
}

/** Counted from the clip's own timecode when the list lies within it, else from the list's first event. */
function startedEdl(
  text: string,
  rate: { rateNumerator: number; rateDenominator: number; frameCount: number },
  start: string | null,
): ReturnType<typeof parseEdl> {
  if (start !== null) {
    const events = parseEdl(text, rate, start)
    if (events.some((e) => e.first >= 0 && e.first < rate.frameCount)) return events
  }
  return parseEdl(text, rate)
}
