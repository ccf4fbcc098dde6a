// Carries a grade from one shot to another: the corrections are solved anew on the other's own pixels, the look is left
// alone.
import { cutTo } from '@core/names'
import type { CarryOver } from '@contracts/index'
import type { Carried, ShotDetail } from '@contracts/responses'
import { aimWords, carriedAims, carryGrade, lossFirst, withOwnBalance } from '@core/aims'
import { differences, restingAt, type GradeDocument } from '@core/grade'
import { judge, outside, pointedAt, readingKey, standardById, waivedKeys } from '@core/readings'
import { localActor, type ServerContext } from '../context'
import { transaction } from '../db/pool'
import { appendRevision } from '../db/revisions'
import { findShot } from '../db/shots'
import { listStandards } from '../db/standards'
import { notFound, Problem } from '../problem'

const size = { maxWidth: 960, maxHeight: 540 } as const

export async function carryTo(
  context: Pick<ServerContext, 'pool' | 'findings' | 'frames' | 'workers'>,
  shotId: string,
  { fromId, stations, solve }: CarryOver,
): Promise<Carried> {
  const { pool, findings, frames, workers } = context
  const [shot, from] = await Promise.all([findShot(pool, shotId), findShot(pool, fromId)])
  if (!shot || !from) throw notFound('shot')
  if (shot.projectId !== from.projectId)
    throw new Problem(422, 'invalid', 'The grade comes from another project.', { field: 'fromId' })
  const measure = (of: ShotDetail, grade: GradeDocument): ReturnType<typeof findings> =>
    findings(
      {
        hash: of.media.hash,
        frame: of.leadFrame,
        bitDepth: of.media.bitDepth,
        grade,
        pointed: pointedAt(of.leadFrame, of),
      },
      true,
    )
  const carried = carryGrade(restingAt(from.revision.grade, from.leadFrame), shot.revision.grade, stations)
  const pointed = pointedAt(shot.leadFrame, shot)
  let grade = carried
  let unmet: readonly string[] = []
  let aims: readonly string[] = []
  if (solve) {
    const wanted = carriedAims(await measure(from, from.revision.grade), await measure(shot, carried), pointed)
    const start = wanted.some((aim) => aim.id === 'white-balance')
      ? carried
      : withOwnBalance(carried, shot.revision.grade)
    const solution = await workers.solve({
      ...(await frames.gradeTask(shot.media.hash, shot.leadFrame, start)),
      grade: start,
      index: shot.leadFrame,
      aims: wanted,
      ...size,
    })
    grade = solution.grade
    unmet = solution.aims.filter((a) => !a.met).map((a) => a.why)
    aims = solution.aims.map(({ aim, met }) => cutTo(`${aimWords(aim)}${met ? '' : ', not met'}`, 200))
  }
  const result = await transaction(pool, (db) =>
    appendRevision(db, {
      shotId: shot.id,
      parentId: shot.headId,
      grade,
      summary: `Grade of ${from.name}${solve ? ', solved for this shot' : ''}`,
      actor: localActor,
      why: { kind: 'carried', from: from.headId, ...(aims.length > 0 ? { aims } : {}) },
    }),
  )
  if (result === 'missing') throw notFound('shot')
  if (result !== 'moved')
    throw new Problem(409, 'conflict', `"${shot.name}" was changed elsewhere meanwhile.`, {
      hint: 'Carry the grade over again.',
    })
  const waived = waivedKeys(shot.waivers)
  const readings = judge(await measure(shot, grade), standardById(shot.standardId, await listStandards(pool)))
  return {
    shotId: shot.id,
    name: shot.name,
    unmet,
    differs: differences({ ...from.revision.grade, read: grade.read }, grade).map((d) => d.words),
    outside: [...outside(readings)]
      .filter((r) => !waived.has(readingKey(r)))
      .sort(lossFirst)
      .map((r) => r.sentence),
  }
}
