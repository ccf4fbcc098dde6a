// A second demo project on the same footage and some more, half-way through: balanced, given looks, named and rendered,
// all by what the program itself proposes and does, so that every view has something to show.
import { cutTo } from '@core/names'
import { applyRecipe, shippedRecipes, type GradeDocument } from '@core/grade'
import type { CarryOver } from '@contracts/requests'
import type { ShotState, ShotSummary } from '@contracts/responses'
import { localActor, type ServerContext } from '../server/context'
import { transaction } from '../server/db/pool'
import { changeProject, findDemoProject, insertScene } from '../server/db/projects'
import { nameVersion } from '../server/db/record'
import { listScenes, setIntent } from '../server/db/reel'
import { insertRender } from '../server/db/renders'
import { appendRevision, type NewHead } from '../server/db/revisions'
import { findShot, listShots } from '../server/db/shots'
import { enqueue } from '../server/jobs/enqueue'
import { balanceReader } from '../server/services/balance'
import { carryReader } from '../server/services/carry'
import { duplicateProject } from '../server/services/duplicate'
import { importClip } from '../server/services/import'
import { changeShots } from '../server/services/reel'
import { secondWeekShots } from './second-week'
import { clipOf } from './seed'

const name = 'Ashglaze, second week'
const key = 'ashglaze-halfway'
/** What carries this key was broken off, and is made anew. */
const unfinishedKey = `${key}, unfinished`

const intents: Readonly<Record<string, string>> = {
  Workshop: 'Glaze colours as one would buy them; the room stays quiet.',
  Portraits: 'Warm hands before cool walls.',
  'Kiln yard': 'The fire is the lamp.',
  Night: 'Dark, and still every glaze can be told.',
  Harbour: 'Cold and far; the jar is the only warm thing.',
}

interface Work {
  readonly shot: string
  readonly balanced?: true
  /** A recipe that ships, by its name. */
  readonly recipe?: string
  /** The shot whose look it carries; its own levels and balance stay. */
  readonly lookOf?: string
  readonly version?: string
  readonly state: ShotState
  readonly rendered?: true
}
const works: readonly Work[] = [
  {
    shot: 'Glaze shelf',
    recipe: 'Dense saturated print',
    version: 'For the catalogue',
    state: 'finished',
    rendered: true,
  },
  {
    shot: 'Potter at the bench',
    balanced: true,
    recipe: 'Complementary split',
    version: 'First pass',
    state: 'finished',
    rendered: true,
  },
  { shot: 'Apprentice', balanced: true, lookOf: 'Potter at the bench', state: 'matched' },
  { shot: 'Kiln at night', recipe: 'Candle and tungsten kept warm', state: 'corrected' },
  { shot: 'Yard under cloud', balanced: true, state: 'corrected' },
  { shot: 'Snow in the yard', balanced: true, state: 'corrected' },
  { shot: 'Sunken jar', balanced: true, state: 'corrected' },
  { shot: 'Courtyard walk', balanced: true, state: 'corrected' },
]

/** Makes the project from the untouched one when it is not there yet. */
export async function seedHalfway(context: ServerContext, footageFolder: string, untouchedId: string): Promise<void> {
  const { pool } = context
  if (await findDemoProject(pool, key)) return
  await pool.query('DELETE FROM projects WHERE demo_key = $1', [unfinishedKey])
  const { id } = await transaction(pool, async (db) => {
    const copy = await duplicateProject(db, untouchedId, localActor)
    await changeProject(db, copy.id, { name })
    await db.query('UPDATE projects SET demo_key = $2 WHERE id = $1', [copy.id, unfinishedKey])
    return copy
  })
  const scenes = new Map((await listScenes(pool, id)).map((scene) => [scene.name, scene.id]))
  for (const shot of secondWeekShots) {
    const sceneId = scenes.get(shot.scene) ?? (await insertScene(pool, id, shot.scene, scenes.size + 1)).id
    scenes.set(shot.scene, sceneId)
    await importClip(context, clipOf(footageFolder, id, shot, sceneId))
  }
  for (const scene of await listScenes(pool, id)) await setIntent(pool, scene.id, intents[scene.name] ?? '')
  const shots = new Map((await listShots(pool, id, 0, 100)).map((shot) => [shot.name, shot]))
  for (const work of works) await doWork(context, work, shots)
  await pool.query('UPDATE projects SET demo_key = $2 WHERE id = $1', [id, key])
}

async function doWork(context: ServerContext, work: Work, shots: ReadonlyMap<string, ShotSummary>): Promise<void> {
  const { pool } = context
  const shotId = idOf(work.shot, shots)
  if (work.balanced) {
    const [choice] = (await balanceReader(context).of(shotId)).choices
    if (choice && choice.changes.length > 0) {
      const aims = [cutTo(`${choice.name}: ${choice.sentence}`, 200)]
      await save(context, shotId, () => choice.grade, { summary: 'Balance for me', why: { kind: 'balance', aims } })
    }
  }
  if (work.lookOf) {
    const fromId = idOf(work.lookOf, shots)
    const asked: CarryOver = { stations: ['shape', 'hue', 'look'], solve: false }
    const [choice] = (await carryReader(context).of({ shotId, fromId, asked })).choices
    if (choice)
      await save(context, shotId, () => choice.grade, {
        summary: `Grade of ${work.lookOf}`,
        why: { kind: 'carried', from: (await findShot(pool, fromId))?.headId },
      })
  }
  if (work.recipe !== undefined) {
    const recipe = shippedRecipes.find((r) => r.name === work.recipe)
    if (!recipe) throw new RangeError(`No recipe "${work.recipe}" ships.`)
    await save(context, shotId, (grade) => applyRecipe(grade, recipe), { summary: recipe.name })
  }
  await transaction(pool, async (db) => {
    const head = (await findShot(db, shotId))?.headId ?? ''
    if (work.version) await nameVersion(db, shotId, head, work.version, localActor)
    await changeShots(db, { shotIds: [shotId], state: work.state }, localActor)
    const render = work.rendered && (await insertRender(db, head, localActor))
    if (render) await enqueue(db, 'render', render.id)
  })
}

function idOf(shot: string, shots: ReadonlyMap<string, ShotSummary>): string {
  const found = shots.get(shot)
  if (!found) throw new RangeError(`The demo has no shot "${shot}".`)
  return found.id
}

async function save(
  { pool }: ServerContext,
  shotId: string,
  change: (grade: GradeDocument) => GradeDocument,
  what: Pick<NewHead, 'summary' | 'why'>,
): Promise<void> {
  await transaction(pool, async (db) => {
    const shot = await findShot(db, shotId)
    if (!shot) return
    const { grade } = shot.revision
    await appendRevision(db, { shotId, parentId: shot.headId, grade: change(grade), actor: localActor, ...what })
  })
}
