// Cutting, joining and changing many shots at once. Every grade change is a revision; media stay as they are.
import { cutTo } from '@core/names'
import type { CutShot, FrameRange, ShotChanges } from '@contracts/index'
import { encodingById, encodingFromDefinition } from '@core/colour'
import { proposeLead } from '@core/footage'
import { addStep, cdlParameters, removeStep, setRead, type CdlNumbers, type GradeDocument } from '@core/grade'
import { isShippedEncoding } from '@contracts/index'
import { shotsWithDefaults } from '../db/defaults'
import { listEncodings } from '../db/encodings'
import { findSurvey } from '../db/media'
import { lockReelOf } from '../db/locks'
import type { Queryable } from '../db/pool'
import {
  dropEmptyScenes,
  lockShots,
  removeShots,
  reorder,
  sceneNamed,
  setCamera,
  setPiece,
  setPlayed,
  setScene,
  setStandard,
  setStaysAsItLooks,
  setState,
  type ReelShot,
} from '../db/reel'
import { appendRevision } from '../db/revisions'
import { addShot } from './shots'
import { notFound, Problem } from '../problem'
import { followDefaults, requireStandard } from './defaults'
import { bringLooks } from './looks'

async function requireShots(db: Queryable, ids: readonly string[]): Promise<readonly [ReelShot, ...ReelShot[]]> {
  const shots = await lockShots(db, ids)
  const [first, ...others] = shots
  if (!first || shots.length !== ids.length) throw notFound('shot')
  if (new Set(shots.map((s) => s.projectId)).size > 1)
    throw new Problem(422, 'invalid', 'The shots belong to different projects.', { field: 'shotIds' })
  return [first, ...others]
}

async function leadOf(db: Queryable, mediaHash: string, first: number, count: number): Promise<number> {
  const survey = await findSurvey(db, mediaHash)
  return survey && first + count <= survey.luma.length
    ? proposeLead(survey, first, count)
    : first + Math.floor(count / 2)
}

/**
 * A shot becomes pieces of its medium. The first piece keeps the shot with its record; the others start with its grade.
 * Returns all ids in order. `seen` is called with the piece that the shot is now, and may throw.
 */
export async function cutShot(
  db: Queryable,
  id: string,
  { pieces }: CutShot,
  actor: string,
  seen: (now: FrameRange) => void,
): Promise<readonly string[]> {
  await lockReelOf(db, id)
  const [shot] = await requireShots(db, [id])
  seen({ firstFrame: shot.firstFrame, frameCount: shot.frameCount })
  pieces.forEach(({ first, count }, i) => {
    if (first + count > shot.mediaFrames)
      throw new Problem(
        422,
        'invalid',
        `Piece ${i + 1} ends at frame ${first + count}; the footage has ${shot.mediaFrames}.`,
        { field: `pieces.${i}` },
      )
  })
  const ids: string[] = []
  for (const [i, { first, count, name, cdl }] of pieces.entries()) {
    const title = name?.trim() || (pieces.length === 1 ? shot.name : `${shot.name} ${i + 1}`)
    const keeps = i === 0 && shot.leadChosen && shot.leadFrame >= first && shot.leadFrame < first + count
    const leadFrame = keeps ? shot.leadFrame : await leadOf(db, shot.mediaHash, first, count)
    if (i === 0) {
      await setPiece(db, id, { first, count, name: title, leadFrame, leadChosen: keeps })
      if (cdl) await regrade(db, [shot], 'Correction of the edit list', actor, () => withCdl(shot.grade, cdl))
      ids.push(id)
    } else {
      ids.push(
        (
          await addShot(db, {
            projectId: shot.projectId,
            sceneId: shot.sceneId,
            mediaHash: shot.mediaHash,
            cameraName: shot.cameraName,
            name: title,
            firstFrame: first,
            frameCount: count,
            leadFrame,
            leadChosen: false,
            grade: cdl ? withCdl(shot.grade, cdl) : shot.grade,
            actor,
            summary: cutTo(`Cut from ${shot.name}`, 200),
          })
        ).id,
      )
    }
  }
  if (ids.length > 1) await reorder(db, shot.projectId, ids, await shotAfter(db, shot))
  return ids
}

/** The grade with a colour decision in its own step, in place of one that is there. */
function withCdl(grade: GradeDocument, cdl: CdlNumbers): GradeDocument {
  const before = grade.steps.find((step) => step.kind === 'cdl')
  return addStep(before ? removeStep(grade, before.id) : grade, 'cdl', 'Slope, offset, power', {
    ...cdlParameters(cdl),
  })
}

async function shotAfter(db: Queryable, { projectId, position }: ReelShot): Promise<string | null> {
  const { rows } = await db.query<{ id: string }>(
    'SELECT id FROM shots WHERE project_id = $1 AND position > $2 ORDER BY position LIMIT 1',
    [projectId, position],
  )
  return rows[0]?.id ?? null
}

/** Neighbouring pieces of one medium become one shot: the first, with its grade. */
export async function joinShots(db: Queryable, ids: readonly string[]): Promise<string> {
  const shots = [...(await requireShots(db, ids))].sort((a, b) => a.firstFrame - b.firstFrame)
  const [first] = shots
  if (!first) throw notFound('shot')
  let end = first.firstFrame
  for (const shot of shots) {
    if (shot.mediaHash !== first.mediaHash)
      throw new Problem(422, 'not_neighbours', `"${shot.name}" is of other footage than "${first.name}".`, {
        hint: 'Only pieces of one clip can be joined.',
      })
    if (shot.firstFrame > end)
      throw new Problem(422, 'not_neighbours', `Between frame ${end} and "${shot.name}" frames are missing.`, {
        hint: 'Join the pieces between as well, or lengthen one of them first.',
      })
    end = Math.max(end, shot.firstFrame + shot.frameCount)
  }
  await setPiece(db, first.id, {
    first: first.firstFrame,
    count: end - first.firstFrame,
    name: first.name,
    leadFrame: first.leadFrame,
    leadChosen: first.leadChosen,
  })
  await removeShots(
    db,
    shots.slice(1).map((s) => s.id),
  )
  return first.id
}

export async function changeShots(db: Queryable, change: ShotChanges, actor: string): Promise<void> {
  const ids = change.shotIds
  const shots = await requireShots(db, ids)
  const [{ projectId }] = shots
  if (change.scene) {
    const { id, name } = change.scene
    if (
      id !== undefined &&
      (await db.query('SELECT 1 FROM scenes WHERE id = $1 AND project_id = $2', [id, projectId])).rows.length === 0
    )
      throw notFound('scene')
    const earlier = await shotsWithDefaults(db, projectId, ids)
    await setScene(db, ids, id ?? (name?.trim() ? await sceneNamed(db, projectId, name.trim()) : null))
    await dropEmptyScenes(db, projectId)
    // Each shot carries the look of the scene it is in now, and is shown as that scene is.
    await followDefaults(db, projectId, earlier, 'Display of its scene', actor)
    await bringLooks(db, projectId, 'Look of its scene', actor, ids)
  }
  if (change.standardId !== undefined) {
    if (change.standardId !== null) await requireStandard(db, change.standardId)
    await setStandard(db, ids, change.standardId)
  }
  if (change.staysAsItLooks !== undefined) await setStaysAsItLooks(db, ids, change.staysAsItLooks)
  if (change.state) await setState(db, ids, change.state)
  if (change.cameraName !== undefined) await setCamera(db, ids, change.cameraName.trim())
  if (change.played !== undefined) await setPlayed(db, ids, change.played)
  if (change.read) {
    const { encodingId, range } = change.read
    const own = (await listEncodings(db)).find((e) => e.id === encodingId)
    if (!own && !isShippedEncoding(encodingId))
      throw new Problem(422, 'invalid', `There is no encoding "${encodingId}".`, { field: 'read.encodingId' })
    const { name, gamutIds } = own ? encodingFromDefinition(own) : encodingById(encodingId)
    // A change of scene may have brought another look, and with it another head.
    const defaults = new Map((await shotsWithDefaults(db, projectId, ids)).map((s) => [s.id, s.defaults]))
    await regrade(db, await requireShots(db, ids), `Read as ${name}`, actor, (shot) =>
      setRead(
        shot.grade,
        {
          method: 'formula',
          encodingId,
          range: range ?? shot.grade.read.range,
          gamutId: gamutIds[0],
          ...(own ? { own } : {}),
          // The brightest light of the clip may have been found after the shot opened.
          ...(shot.codeCeiling === null ? {} : { brightestSignal: shot.codeCeiling }),
        },
        defaults.get(shot.id)?.rendering,
      ),
    )
  }
}

async function regrade(
  db: Queryable,
  shots: readonly ReelShot[],
  summary: string,
  actor: string,
  change: (shot: ReelShot) => GradeDocument,
): Promise<void> {
  for (const shot of shots) {
    const grade = change(shot)
    const result = await appendRevision(db, { shotId: shot.id, parentId: shot.headId, grade, summary, actor })
    if (result !== 'moved')
      throw new Problem(409, 'conflict', `"${shot.name}" was changed elsewhere meanwhile.`, {
        hint: 'Nothing was changed; try again.',
      })
  }
}
