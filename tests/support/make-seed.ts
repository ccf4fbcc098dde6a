// Makes the data folder that the tests start from, once for a whole run: demo data, with every clip looked through.
// make-seed FOLDER makes it, make-seed --remove FOLDER takes it away, its database included.
import { rmSync } from 'node:fs'
import { clusterFolder, freePort } from '../../server/db/cluster'
import { demoReel, shotById } from './api'
import { launchDemo } from './demo-instance'
import { until } from './until'

async function make(folder: string): Promise<void> {
  const port = await freePort()
  const program = await launchDemo(folder, port)
  process.env['PALE_TEST_ADDRESS'] = `http://127.0.0.1:${port}`
  for (const { id } of (await demoReel()).shots)
    await until('the demo clips are looked through', async () => (await shotById(id)).proxy, { withinMs: 240_000 })
  const gone = new Promise((done) => program.once('exit', done))
  program.kill('SIGTERM')
  await gone
}

const [first, second] = process.argv.slice(2)
if (first === '--remove' && second) {
  rmSync(clusterFolder(second), { recursive: true, force: true })
  rmSync(second, { recursive: true, force: true })
} else if (first) await make(first)
else throw new Error('Say which folder to make.')
