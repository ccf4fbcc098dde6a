import { createPinia, setActivePinia } from 'pinia'
import { defaultGrade } from '@core/grade'
import { useOpenShot } from './open-shot'

const realFetch = globalThis.fetch
const asked: { readonly path: string; readonly answer: () => void }[] = []
beforeEach(() => {
  setActivePinia(createPinia())
  asked.length = 0
  globalThis.fetch = ((path: string) =>
    new Promise<Response>((resolve) => {
      const id = path.split('/').at(-1)
      const shot = { id, revision: { id: 'r1', headId: 'r1', grade: defaultGrade('log-420-95') } }
      asked.push({ path, answer: () => resolve(Response.json(shot)) })
    })) as typeof fetch
})
afterAll(() => {
  globalThis.fetch = realFetch
})

const turns = async (): Promise<void> => {
  for (let i = 0; i < 20; i++) await new Promise((go) => setImmediate(go))
}
/** Answers the oldest question that waits for `id`. */
async function answer(id: string): Promise<void> {
  await turns()
  const at = asked.findIndex(({ path }) => path.endsWith(`/${id}`))
  expect(at).toBeGreaterThanOrEqual(0)
  asked.splice(at, 1)[0]?.answer()
  await turns()
}

test('a shot that was left is not opened again by what the server did to it meanwhile', async () => {
  const store = useOpenShot()
  void store.open('first')
  await answer('first')
  const next = store.open('second')
  const again = store.reopen('first')
  await answer('second')
  await Promise.all([next, again])
  expect(store.shot?.id).toBe('second')
  expect(asked).toEqual([])
})

test('facts of a shot that come after it was left are not shown as the open shot', async () => {
  const store = useOpenShot()
  void store.open('first')
  await answer('first')
  const next = store.open('second')
  const facts = store.refresh()
  await answer('second')
  await next
  await answer('first')
  await facts
  expect(store.shot?.id).toBe('second')
})

test('a shot that is still open is opened anew', async () => {
  const store = useOpenShot()
  void store.open('first')
  await answer('first')
  const before = store.shot
  const again = store.reopen('first')
  await answer('first')
  await again
  expect(store.shot?.id).toBe('first')
  expect(store.shot).not.toBe(before)
})
