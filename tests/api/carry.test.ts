// Carrying a grade over: the look as it was, the corrections solved on the other shot's own pixels.
import { readFileSync } from 'node:fs'
import { addRegion, setParameter, setStep, type GradeDocument } from '@core/grade'
import type { Carried, ShotDetail, ShotFindings, ShotRecord } from '@contracts/responses'
import { call, get, ownShot, postJson, refusal, save, shotById } from '../support/api'

let from: ShotDetail
let to: ShotDetail
beforeAll(async () => {
  from = await ownShot(readFileSync('demo/footage/potter.mov'), 'potter.mov')
  to = (await (
    await call(`/projects/${from.projectId}/shots?name=yard.mov`, {
      method: 'POST',
      body: readFileSync('demo/footage/yard-cloud.mov') as unknown as BodyInit,
    })
  ).json()) as ShotDetail
  await save(from.id, (g) =>
    setStep(
      addRegion(
        setParameter(
          setParameter(setParameter(g, 'exposure', 'exposureStops', 0.7), 'contrast', 'contrast', 1.2),
          'saturation',
          'saturation',
          1.3,
        ),
      ).grade,
      'saturation',
      { strength: 0.8 },
    ),
  )
})

const carry = async (stations: readonly string[], solve: boolean): Promise<Carried> => {
  const response = await postJson(`/shots/${to.id}/carry`, { fromId: from.id, stations, solve })
  if (!response.ok) throw new Error(await response.text())
  return (await response.json()) as Carried
}
const valueOf = ({ findings }: ShotFindings, id: string): number => findings.find((f) => f.id === id)!.value
const step = (grade: GradeDocument, kind: string): unknown =>
  grade.steps.find((s) => s.kind === kind && s.regionId === undefined)
const all = ['level', 'shape', 'hue', 'regions', 'look', 'show']

test('as it is: every chosen station, and not how the other shot is read', async () => {
  const result = await carry(all, false)
  const [source, target] = [await shotById(from.id), await shotById(to.id)]
  expect(new Set(target.revision.grade.steps.map((s) => JSON.stringify(s)))).toEqual(
    new Set(source.revision.grade.steps.map((s) => JSON.stringify(s))),
  )
  expect(target.revision.grade.regions).toEqual(source.revision.grade.regions)
  expect(target.read).toEqual(to.read)
  expect([result.differs, result.unmet]).toEqual([[], []])
})

test(
  'solved: levels measure as they do there, colour and regions stay, the list says what differs and ' +
    'what is outside',
  async () => {
    const result = await carry(all, true)
    const there = await get<ShotFindings>(`/shots/${from.id}/findings`)
    const here = await get<ShotFindings>(`/shots/${to.id}/findings`)
    expect(result.unmet).toEqual([])
    for (const id of ['black', 'middle', 'white'])
      expect(Math.abs(valueOf(here, id) - valueOf(there, id))).toBeLessThan(0.005)
    const [source, target] = [(await shotById(from.id)).revision.grade, (await shotById(to.id)).revision.grade]
    expect(step(target, 'saturation')).toEqual(step(source, 'saturation'))
    expect(target.regions).toEqual(source.regions)
    expect(result.differs.some((w) => w.startsWith('Exposure'))).toBe(true)
    for (const sentence of result.outside) expect(sentence).toMatch(/The standard wants/)
    const { revisions } = await get<ShotRecord>(`/shots/${to.id}/record`)
    expect(revisions[0]).toMatchObject({
      summary: 'Grade of potter.mov, solved for this shot',
      why: { kind: 'carried' },
    })
    expect(revisions[0]!.why!.aims).toContain(`Black at ${(valueOf(there, 'black') * 100).toFixed(1)} %`)
  },
)

test('one station alone leaves the others; nonsense is refused', async () => {
  await save(to.id, (g) => setParameter(setParameter(g, 'contrast', 'contrast', 0.9), 'saturation', 'saturation', 0.5))
  await carry(['hue'], false)
  const { grade } = (await shotById(to.id)).revision
  expect((step(grade, 'contrast') as { params: object }).params).toMatchObject({ contrast: 0.9 })
  expect((step(grade, 'saturation') as { params: object }).params).toMatchObject({ saturation: 1.3 })
  expect(
    (await refusal(await postJson(`/shots/${to.id}/carry`, { fromId: from.id, stations: ['read'], solve: false })))
      .status,
  ).toBe(422)
  const other = await ownShot(readFileSync('demo/footage/potter.mov'))
  expect(
    (await refusal(await postJson(`/shots/${to.id}/carry`, { fromId: other.id, stations: ['hue'], solve: false })))
      .message,
  ).toContain('another project')
})

describe('recipes', () => {
  const contrast = {
    kind: 'contrast',
    name: 'Contrast',
    strength: 0.8,
    side: 'scene',
    params: { contrast: 1.2, pivotStops: 0 },
  }
  const face = {
    id: 'face',
    name: 'Face',
    invert: false,
    strength: 1,
    components: [
      {
        id: 'component-1',
        mode: 'add',
        invert: false,
        opacity: 1,
        source: {
          kind: 'shape',
          shape: { kind: 'ellipse', centreX: 0.4, centreY: 0.5, radiusX: 0.2, radiusY: 0.3, rotationDegrees: 0 },
          inner: 0.04,
          outer: 0.04,
        },
      },
    ],
  }
  const lifted = {
    kind: 'exposure',
    name: 'Exposure',
    strength: 1,
    side: 'scene',
    params: { exposureStops: 0.4 },
    regionId: 'face',
  }
  test('are kept across projects, one per name, and removed', async () => {
    const dusty = { name: 'Dusty shelf', note: '', steps: [contrast, lifted], regions: [face] }
    const made = await postJson('/recipes', dusty)
    expect(made.status).toBe(201)
    const { id } = (await made.json()) as { id: string }
    expect(await get('/recipes')).toContainEqual({ id, ...dusty })
    expect((await refusal(await postJson('/recipes', { ...dusty, name: 'Dusty shelf ' }))).code).toBe('taken')
    expect((await call(`/recipes/${id}`, { method: 'DELETE' })).status).toBe(204)
    expect((await call(`/recipes/${id}`, { method: 'DELETE' })).status).toBe(404)
  })
  test.each([
    ['no steps', { steps: [] }],
    ['a kind that is none', { steps: [{ ...contrast, kind: 'magic' }] }],
    ['a value out of range', { steps: [{ ...contrast, params: { contrast: 99, pivotStops: 0 } }] }],
    ['a region that is not there', { steps: [{ ...lifted, regionId: 'r' }], regions: [face] }],
    ['two regions of one id', { steps: [lifted], regions: [face, face] }],
    [
      'a region with an absurd edge',
      {
        steps: [lifted],
        regions: [
          { ...face, components: [{ ...face.components[0]!, source: { ...face.components[0]!.source, inner: 7 } }] },
        ],
      },
    ],
    [
      'a step that no region carries',
      {
        steps: [
          {
            kind: 'lut',
            name: 'LUT',
            strength: 1,
            side: 'display',
            params: { lutHash: null, interpolation: 'tetrahedral' },
            regionId: 'face',
          },
        ],
        regions: [face],
      },
    ],
    ['no regions list', { regions: undefined }],
    ['no name', { name: '' }],
  ])('with %s is refused', async (_, change) => {
    expect(
      (await refusal(await postJson('/recipes', { name: 'X', note: '', steps: [contrast], regions: [], ...change })))
        .status,
    ).toBe(422)
  })
})
