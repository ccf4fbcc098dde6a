import type { FrameReader } from './frames'
import { previewReader, type Preview } from './previews'

function trial(): { readonly reader: ReturnType<typeof previewReader>; readonly made: string[]; fails: boolean } {
  const made: string[] = []
  const state = { reader: null as unknown as ReturnType<typeof previewReader>, made, fails: false }
  const source = ((hash: string, index: number) =>
    Promise.resolve(`${hash} ${index}`)) as unknown as FrameReader['source']
  state.reader = previewReader({ source } as unknown as FrameReader, {
    previewFrame: ({ source: of, maxWidth }) => {
      made.push(`${of as unknown as string} ${maxWidth}`)
      if (state.fails) return Promise.reject(new Error('spoiled'))
      return Promise.resolve({ width: maxWidth } as unknown as Preview)
    },
  })
  return state
}

test('what was prepared is there, once, for the Bench alone', async () => {
  const { reader, made } = trial()
  reader.prepare('a', 7, 'full')
  expect(await reader.of('a', 7, 'full', 'bench')).toEqual({ width: 960 })
  expect(made).toEqual(['a 7 960'])
  await reader.of('a', 7, 'full', 'sheet')
  await reader.of('a', 7, 'legal', 'bench')
  await reader.of('a', 8, 'full', 'bench')
  expect(made).toEqual(['a 7 960', 'a 7 192', 'a 7 960', 'a 8 960'])
})

test('what could not be prepared is made when it is asked for', async () => {
  const state = trial()
  state.fails = true
  state.reader.prepare('a', 7, 'full')
  await new Promise((done) => setImmediate(done))
  state.fails = false
  expect(await state.reader.of('a', 7, 'full', 'bench')).toEqual({ width: 960 })
  expect(state.made).toHaveLength(2)
})
