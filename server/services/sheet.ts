// The grade sheet: what was done to shots, with encoding and evidence, controls, readings before and after, and the
// record.
import type { GradeSheet, SheetReading, ShotDetail, ShotSheet } from '@contracts/responses'
import { displayById, gamutById } from '@core/colour'
import { rateName } from '@core/footage'
import { animationWords, controlsInUse, encodingOf, gradeAt } from '@core/grade'
import {
  judge,
  pointedAt,
  printValue,
  readingKey,
  standardById,
  unitForm,
  readingKind,
  waivedKeys,
  type HouseStandard,
  type Reading,
} from '@core/readings'
import type { ServerContext } from '../context'
import { gradeOfShot } from '../db/record'
import { recordPath } from './record'
import { findShot, shotIdsOf } from '../db/shots'
import { listStandards } from '../db/standards'
import { notFound } from '../problem'

type Needs = Pick<ServerContext, 'pool' | 'findings'>

export async function sheetOfShot(context: Needs, id: string): Promise<GradeSheet> {
  const shot = await findShot(context.pool, id)
  if (!shot) throw notFound('shot')
  return {
    project: shot.projectName,
    made: new Date().toISOString(),
    shots: [await sheetOf(context, shot, await listStandards(context.pool))],
  }
}

export async function sheetOfProject(context: Needs, projectId: string): Promise<GradeSheet> {
  const standards = await listStandards(context.pool)
  const shots: ShotSheet[] = []
  let project = ''
  for (const id of await shotIdsOf(context.pool, projectId)) {
    const shot = await findShot(context.pool, id)
    // One that was removed meanwhile is not on the sheet.
    if (!shot) continue
    project = shot.projectName
    shots.push(await sheetOf(context, shot, standards))
  }
  return { project, made: new Date().toISOString(), shots }
}

async function sheetOf({ pool, findings }: Needs, shot: ShotDetail, own: readonly HouseStandard[]): Promise<ShotSheet> {
  const standard = standardById(shot.standardId, own)
  const path = await recordPath(pool, shot.headId)
  const first = path.at(-1)
  const { grade } = shot.revision
  const started = (first && (await gradeOfShot(pool, shot.id, first.id))) ?? grade
  const { media, leadFrame: frame } = shot
  const measured = { hash: media.hash, frame, bitDepth: media.bitDepth, pointed: pointedAt(frame, shot) }
  const [before = [], after = []] = await Promise.all(
    [started, grade].map(async (g) => judge(await findings({ ...measured, grade: g }, true), standard)),
  )
  return {
    id: shot.id,
    name: shot.name,
    scene: shot.scene,
    camera: shot.cameraName,
    leadFrame: frame - shot.firstFrame,
    stillFrame: frame,
    firstFrame: shot.firstFrame,
    frameCount: shot.frameCount,
    source:
      `${media.width}×${media.height}, ` +
      `${rateName({ numerator: media.rateNumerator, denominator: media.rateDenominator })} fps, ` +
      `${media.bitDepth} bit, ${media.chroma}, ${media.codec}`,
    encoding:
      `${encodingOf(grade.read).name}, ${gamutById(grade.read.gamutId).name}, ${grade.read.range} ` +
      `range${grade.read.method === 'lut' ? ', by LUT' : ''}`,
    evidence: shot.guess?.sentences ?? [],
    display: displayById(grade.show.displayId).name,
    standard: standard.name,
    controls: [
      ...controlsInUse(gradeAt(grade, frame)),
      ...grade.animation.map((keyframes) => ({ step: 'Along the clip', words: animationWords(grade, keyframes) })),
    ],
    aims: path.find((r) => r.why?.aims?.length)?.why?.aims ?? [],
    readings: readingsOf(before, after, shot),
    record: path.map(({ depth, at, actor, summary, changes }) => ({ depth, at, actor, summary, changes })),
    firstRevisionId: first?.id ?? shot.headId,
    headId: shot.headId,
  }
}

/** What counts by the standard, and what is waived. */
function readingsOf(
  before: readonly Reading[],
  after: readonly Reading[],
  { waivers }: ShotDetail,
): readonly SheetReading[] {
  const waived = waivedKeys(waivers)
  const old = new Map(before.map((r) => [readingKey(r), r]))
  return after
    .filter((r) => r.target || waived.has(readingKey(r)))
    .map((r) => {
      const { unit } = readingKind(r.id)
      const key = readingKey(r)
      const was = old.get(key)
      return {
        name: r.name,
        unit: unitForm(unit).after,
        before: was ? printValue(was.value, unit) : null,
        after: printValue(r.value, unit),
        target: r.target ? `${printValue(r.target.low, unit)} to ${printValue(r.target.high, unit)}` : '',
        verdict: r.verdict,
        waived: waived.get(key) ?? null,
      }
    })
}

/** A cell of comma-separated values (RFC 4180). What a person typed never starts a formula in a spreadsheet. */
const cell = (value: string | number | null): string =>
  `"${String(value ?? '')
    .replace(/^([=+\-@\t\r])/, "'$1")
    .replaceAll('"', '""')}"`

export function sheetAsCsv({ shots }: GradeSheet): string {
  const rows: (string | number | null)[][] = [
    ['shot', 'scene', 'what', 'name', 'before', 'after', 'unit', 'target', 'note'],
  ]
  for (const s of shots) {
    const row = (what: string, name: string, more: (string | number | null)[] = []): void => {
      rows.push([s.name, s.scene, what, name, ...more, ...Array.from({ length: 5 - more.length }, () => '')])
    }
    row('encoding', s.encoding, [null, null, null, null, s.evidence.join(' ')])
    row('display', s.display)
    row('standard', s.standard)
    for (const c of s.controls) row('control', c.step, [null, c.words])
    for (const a of s.aims) row('aim', a)
    for (const r of s.readings)
      row('reading', r.name, [
        r.before,
        r.after,
        r.unit,
        r.target,
        r.waived ? `waived: ${r.waived}` : (r.verdict ?? ''),
      ])
    for (const r of s.record) row('record', r.summary, [null, r.changes.join('; '), null, null, `${r.at} ${r.actor}`])
  }
  return rows.map((r) => r.map(cell).join(',')).join('\r\n') + '\r\n'
}
