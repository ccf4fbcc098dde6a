// Loads the demo project into a running server's store, once.
import { createReadStream } from 'node:fs'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { localActor, type ServerContext } from '../server/context'
import { findDemoProject, insertProject, insertScene } from '../server/db/projects'
import { importClip, type ClipToImport } from '../server/services/import'
import { inspectionOf, keepLut } from '../server/services/luts'
import { demoLuts } from './luts'
import { assembly, demoShots, type DemoShot } from './shots'

const demoKey = 'ashglaze'

type Footage = Pick<DemoShot, 'id' | 'name' | 'encodingId' | 'gamutId' | 'leadFrame'> & { readonly camera?: string }

/** A clip of the demo on its way into a project, with all that is known of it. */
export const clipOf = (
  footageFolder: string,
  projectId: string,
  { id, name, camera, encodingId, gamutId, leadFrame }: Footage,
  sceneId: string | null,
): ClipToImport => ({
  body: Readable.toWeb(createReadStream(join(footageFolder, `${id}.mov`))),
  maxBytes: 64 * 1024 * 1024,
  name,
  projectId,
  actor: localActor,
  known: { sceneId, cameraName: camera ?? null, encodingId, gamutId, leadFrame },
})

/** Makes the project Ashglaze with its scenes and shots when it is not there yet. Returns its id. */
export async function seedDemo(context: ServerContext, footageFolder: string): Promise<string> {
  const known = await findDemoProject(context.pool, demoKey)
  if (known) return known.id
  const project = await insertProject(context.pool, 'Ashglaze', demoKey)
  try {
    const scenes = new Map<string, string>()
    for (const shot of demoShots) {
      let sceneId = scenes.get(shot.scene)
      if (!sceneId) {
        sceneId = (await insertScene(context.pool, project.id, shot.scene, scenes.size + 1)).id
        scenes.set(shot.scene, sceneId)
      }
      await importClip(context, clipOf(footageFolder, project.id, shot, sceneId))
    }
    const { id, name } = assembly
    const finished = { id, name, encodingId: 'gamma-2.4', gamutId: 'bt709', leadFrame: 60 }
    await importClip(context, clipOf(footageFolder, project.id, finished, null))
    for (const { name, folder, text } of demoLuts) {
      const { hash } = await keepLut(context, new Blob([text()]).stream() as never, name, folder)
      await inspectionOf(context, hash)
    }
    return project.id
  } catch (error) {
    // A demo that came only half is removed, so that the next start makes it whole.
    await context.pool.query('DELETE FROM projects WHERE id = $1', [project.id])
    throw error
  }
}
