// What readings and aims measure is made of the same frames as the picture: the frame and those about it that the grade
// looks at, within the shot's own range.
import {
  addRegion,
  changeComponent,
  defaultGrade,
  keyComponent,
  neighbourFrames,
  type GradeDocument,
} from '@core/grade'
import { noCleaning } from '@core/regions'
import { loadGradedFrame } from './frame-source'
import type { Medium } from './messages'

/** A grade with a key that is steadied over the frames before and after. */
function steadied(): GradeDocument {
  const { grade, regionId } = addRegion(defaultGrade('log-420-95'))
  const [first] = grade.regions[0]!.components
  return changeComponent(grade, regionId, first!.id, (c) => {
    const { source } = keyComponent(c.id)
    return { ...c, source: source.kind === 'key' ? { ...source, cleaning: { ...noCleaning, steady: 2 } } : source }
  })
}

const medium = {
  hash: 'medium',
  rate: { numerator: 24, denominator: 1 },
  proxy: null,
  span: { first: 10, last: 19 },
} as unknown as Medium
// One thread: nothing is shared.
Object.defineProperty(globalThis, 'navigator', { value: { hardwareConcurrency: 1 }, configurable: true })
const asked: string[] = []
beforeEach(() => {
  asked.length = 0
  globalThis.fetch = (url) => {
    asked.push(String(url))
    const headers = { 'x-frame-width': '2', 'x-frame-height': '1', 'x-frame-low': '0', 'x-frame-high': '1' }
    return Promise.resolve(new Response(new Uint16Array(6), { headers }))
  }
})
const framesAsked = (): readonly number[] =>
  asked.map((url) => Number(/frames\/(\d+)/.exec(url)?.[1])).sort((a, b) => a - b)

test.each([
  ['in the middle of the shot', 15, [13, 14, 16, 17]],
  ['at its first frame', 10, [11, 12]],
  ['at its last frame', 19, [17, 18]],
])('%s, the frames about it are those that the picture is made of', async (name, at, around) => {
  const grade = steadied()
  const frame = await loadGradedFrame({ medium: { ...medium, hash: name }, frameIndex: at, grade })
  const away = neighbourFrames(grade, at, 10, 19)
  expect(away.map((n) => at + n)).toEqual(around)
  expect([...frame.around!.keys()]).toEqual(away)
  expect(framesAsked()).toEqual([...around, at].sort((a, b) => a - b))
})

test('a grade that looks at no other frame asks for one only', async () => {
  const frame = await loadGradedFrame({
    medium: { ...medium, hash: 'plain' },
    frameIndex: 12,
    grade: defaultGrade('log-420-95'),
  })
  expect(frame.around).toBeUndefined()
  expect(framesAsked()).toEqual([12])
})
