// The server is killed again and again (fifty times in a thorough run) in the middle of saving: nothing that was
// answered as saved is ever lost.
import { setParameter, type GradeDocument } from '@core/grade'
import type { RevisionState, ShotDetail } from '@contracts/responses'
import { readFileSync } from 'node:fs'
import { wholeRecord } from '../support/api'
import { importInto, startBareServer, type BareServer } from '../support/bare-server'
import { thorough } from '../support/thorough'
import { randomFrom } from '../support/pictures'

let server: BareServer
beforeAll(async () => {
  server = await startBareServer()
}, 60_000)
afterAll(() => server.dispose())

const kills = thorough ? 50 : 15

test(
  'killed at random points, with saves under way: every one that was acknowledged is in the record, ' + 'in order',
  async () => {
    const { address } = server
    const random = randomFrom(50)
    const get = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
    const id = await importInto(address, readFileSync('demo/footage/potter.mov'), 'potter.mov')
    let { revision } = await get<ShotDetail>(`/shots/${id}`)
    /** As long as a save takes here, so that a slow machine is killed in the middle of one just as well. */
    let saveMs = 40
    const acknowledged: { readonly id: string; readonly grade: string }[] = []
    for (let round = 0; round < kills; round++) {
      let dead = false
      // So many saves of this round are answered before the server is killed, within the next.
      const whole = Math.floor(random() * 3)
      const before = acknowledged.length
      const answered = { whole: (): void => undefined }
      const enough = new Promise<void>((done) => {
        answered.whole = done
        if (whole === 0) done()
      })
      const saving = (async () => {
        let { headId: parentId } = revision
        let grade: GradeDocument = revision.grade
        for (let n = 0; !dead; n++) {
          grade = setParameter(grade, 'exposure', 'exposureStops', (round + n / 1000) / 50)
          const began = performance.now()
          const response = await fetch(`${address}/api/shots/${id}/revisions`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ parentId, summary: `round ${round}.${n}`, grade }),
          }).catch(() => null)
          if (!response?.ok) return
          // Only a whole answer counts as said.
          const state = (await response.json().catch(() => null)) as RevisionState | null
          if (!state) return
          acknowledged.push({ id: state.headId, grade: JSON.stringify(state.grade) })
          saveMs = (saveMs + performance.now() - began) / 2
          if (acknowledged.length - before >= whole) answered.whole()
          parentId = state.headId
        }
      })()
      await enough
      await new Promise((done) => setTimeout(done, random() * 1.5 * saveMs))
      await server.kill()
      dead = true
      await saving
      await server.restart()
      revision = (await get<ShotDetail>(`/shots/${id}`)).revision
      const last = acknowledged.at(-1)
      // The head is the last acknowledged revision, or stands on it: what was committed before its answer got through
      // is there too.
      const revisions = await wholeRecord(id, get)
      const byId = new Map(revisions.map((r) => [r.id, r]))
      let at = byId.get(revision.headId)
      while (at && at.id !== last?.id) at = byId.get(at.parentId ?? '')
      expect(at?.id).toBe(last?.id)
    }
    const revisions = await wholeRecord(id, get)
    const places = new Map(revisions.map((r, i) => [r.id, i]))
    expect(acknowledged.length).toBeGreaterThan(kills / 2)
    let newest = Infinity
    for (const { id: revisionId } of acknowledged) {
      const at = places.get(revisionId)
      expect(at).toBeDefined()
      // Newest first: later ones stand further up.
      expect(at!).toBeLessThan(newest)
      newest = at!
    }
    const kept = acknowledged[Math.floor(acknowledged.length / 2)]!
    expect(JSON.stringify(await get<GradeDocument>(`/shots/${id}/revisions/${kept.id}`))).toBe(kept.grade)
  },
  240_000,
)
