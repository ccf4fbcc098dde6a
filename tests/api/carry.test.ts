// Carrying a grade over: the look as it was, the corrections solved on the other shot's own pixels.
import { readFileSync } from 'node:fs'
import { addRegion, setParameter, setStep, type GradeDocument } from '@core/grade'
import type { ShotDetail, ShotFindings, ShotProposal, ShotRecord } from '@contracts/responses'
import { call, get, ownShot, postJson, refusal, save, shotById } from '../support/api'

let from: ShotDetail
let to: ShotDetail
beforeAll(async () => {
  from = await ownShot(readFileSync('demo/footage/potter.mov'), 'potter.mov')
  to = await beside(from, 'yard-cloud')
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

const address = (stations: readonly string[], solve: boolean, source = from.id): string =>
  `/shots/${to.id}/carry/${source}?stations=${stations.join(',')}&solve=${solve ? 1 : 0}`
/** What is proposed, taken as the Reel takes it. */
const carry = async (stations: readonly string[], solve: boolean): Promise<ShotProposal> => {
  const proposal = await get<ShotProposal>(address(stations, solve))
  const [choice] = proposal.choices
  const response = await postJson(`/shots/${to.id}/revisions`, {
    parentId: proposal.headId,
    summary: 'Grade of potter.mov',
    why: { kind: 'carried', from: from.headId, aims: choice!.aims },
    grade: choice!.grade,
  })
  if (!response.ok) throw new Error(await response.text())
  return proposal
}
const valueOf = ({ findings }: ShotFindings, id: string): number => findings.find((f) => f.id === id)!.value
const step = (grade: GradeDocument, kind: string): unknown =>
  grade.steps.find((s) => s.kind === kind && s.regionId === undefined)
const all = ['level', 'shape', 'hue', 'regions', 'look', 'show']

test('as it is: every chosen station, and not how the other shot is read; asking changes nothing', async () => {
  const before = (await shotById(to.id)).headId
  const asked = await get<ShotProposal>(address(all, false))
  expect((await shotById(to.id)).headId).toBe(before)
  // The shots show different places: where the region lies here is for a person to say.
  expect(asked.places).toEqual([expect.objectContaining({ kind: 'region', sure: false })])
  expect(asked.choices[0]!.sure).toBe(false)
  await carry(all, false)
  const [source, target] = [await shotById(from.id), await shotById(to.id)]
  expect(new Set(target.revision.grade.steps.map((s) => JSON.stringify(s)))).toEqual(
    new Set(source.revision.grade.steps.map((s) => JSON.stringify(s))),
  )
  expect(target.revision.grade.regions.map((r) => r.name)).toEqual(source.revision.grade.regions.map((r) => r.name))
  expect(target.read).toEqual(to.read)
})

/** A clip more in the project of a shot. */
async function beside(shot: ShotDetail, clip: string): Promise<ShotDetail> {
  const body = readFileSync(`demo/footage/${clip}.mov`) as unknown as BodyInit
  return (await (
    await call(`/projects/${shot.projectId}/shots?name=${clip}.mov`, { method: 'POST', body })
  ).json()) as ShotDetail
}

test('solved in another place: its exposure and balance stay its own, all else is carried; it is told', async () => {
  await save(to.id, (g) => setParameter(g, 'exposure', 'exposureStops', -0.1))
  const before = (await shotById(to.id)).revision.grade
  const proposal = await carry(all, true)
  expect(proposal.note).toContain('over a level of its own')
  const [source, target] = [(await shotById(from.id)).revision.grade, (await shotById(to.id)).revision.grade]
  expect(step(target, 'saturation')).toEqual(step(source, 'saturation'))
  expect(step(target, 'contrast')).toEqual(step(source, 'contrast'))
  expect(step(source, 'exposure')).toMatchObject({ params: { exposureStops: 0.7 } })
  expect(step(target, 'exposure')).not.toEqual(step(source, 'exposure'))
  expect(step(target, 'white-balance')).toEqual(step(before, 'white-balance'))
  for (const { sentence } of proposal.outside!) expect(sentence).toMatch(/The standard wants/)
})

test('solved in the same view: levels measure as they do there, as far as the whole clip allows', async () => {
  const twin = await beside(from, 'potter')
  await save(twin.id, (g) => setParameter(g, 'exposure', 'exposureStops', -0.9))
  const proposal = await get<ShotProposal>(
    `/shots/${twin.id}/carry/${from.id}?stations=level,shape,hue,look,show&solve=1`,
  )
  expect(proposal.note).toContain('solved for this shot')
  const there = await get<ShotFindings>(`/shots/${from.id}/findings`)
  const [choice] = proposal.choices
  await postJson(`/shots/${twin.id}/revisions`, {
    parentId: proposal.headId,
    summary: 'Carried',
    why: { kind: 'carried', from: from.headId, aims: choice!.aims },
    grade: choice!.grade,
  })
  const here = await get<ShotFindings>(`/shots/${twin.id}/findings`)
  for (const id of ['black', 'middle', 'white'])
    expect(Math.abs(valueOf(here, id) - valueOf(there, id))).toBeLessThan(0.01)
  const { revisions } = await get<ShotRecord>(`/shots/${twin.id}/record`)
  expect(revisions[0]!.why!.aims).toContain(`Black at ${(valueOf(there, 'black') * 100).toFixed(1)} %`)
  expect(revisions[0]!.why!.aims!.some((a) => /^White, frame \d+ at most/.test(a))).toBe(true)
})

test('what would be lost anywhere in the clip is named before it is taken', async () => {
  const bright = await ownShot(readFileSync('demo/footage/potter.mov'), 'potter.mov')
  const yard = await beside(bright, 'yard-cloud')
  await save(bright.id, (g) => {
    const straight: GradeDocument = { ...g, show: { ...g.show, method: 'straight' } }
    return setParameter(straight, 'exposure', 'exposureStops', 3)
  })
  const proposal = await get<ShotProposal>(
    `/shots/${yard.id}/carry/${bright.id}?stations=level,shape,hue,look,show&solve=0`,
  )
  expect(proposal.losses!.length).toBeGreaterThan(0)
  for (const sentence of proposal.losses!) expect(sentence).toMatch(/^Frame \d+: .*The standard wants/)
  expect(proposal.choices[0]!.sure).toBe(false)
})

test('of the same shot again, parts are where they were; a moved one is drawn where it was put', async () => {
  const first = await ownShot(readFileSync('demo/footage/potter.mov'), 'potter.mov')
  const second = await beside(first, 'potter')
  const area = { left: 0.4, top: 0.2, right: 0.55, bottom: 0.5 }
  const made = await call(`/projects/${first.projectId}/subjects`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'if-none-match': '*' },
    body: JSON.stringify({
      name: 'Potter',
      shotId: first.id,
      frame: first.leadFrame,
      area,
      card: { luma: 0.5, chroma: 0.1, hueDegrees: 123 },
    }),
  })
  await save(first.id, (g) => {
    const { grade, regionId } = addRegion(g)
    const lifted = grade.steps.find((s) => s.regionId === regionId && s.kind === 'exposure')!
    return setParameter(grade, lifted.id, 'exposureStops', 1)
  })
  const at = `/shots/${second.id}/carry/${first.id}`
  const query = 'stations=regions&solve=0'
  const { places, choices } = await get<ShotProposal>(`${at}?${query}`)
  expect(made.ok).toBe(true)
  expect(places!.map((p) => [p.kind, p.sure])).toEqual([
    ['region', true],
    ['subject', true],
  ])
  const subject = places!.find((p) => p.kind === 'subject')!.area!
  for (const side of ['left', 'top', 'right', 'bottom'] as const) expect(subject[side]).toBeCloseTo(area[side], 1)
  const region = choices[0]!.grade.regions[0]!
  const picture = async (moved: string): Promise<Buffer> =>
    Buffer.from(await (await call(`${at}/carried?${query}&moved=${moved}`)).arrayBuffer())
  expect((await picture('')).equals(await picture(`${region.id}:0:0`))).toBe(true)
  expect((await picture('')).equals(await picture(`${region.id}:0.2:0`))).toBe(false)
  for (const nonsense of [`${region.id}:99:0`, '%25E0%25A4', 'x:y:z'])
    expect((await refusal(await call(`${at}/carried?${query}&moved=${nonsense}`))).message).toMatch(/shares/)
})

test('one station alone leaves the others; nonsense is refused', async () => {
  await save(to.id, (g) => setParameter(setParameter(g, 'contrast', 'contrast', 0.9), 'saturation', 'saturation', 0.5))
  await carry(['hue'], false)
  const { grade } = (await shotById(to.id)).revision
  expect((step(grade, 'contrast') as { params: object }).params).toMatchObject({ contrast: 0.9 })
  expect((step(grade, 'saturation') as { params: object }).params).toMatchObject({ saturation: 1.3 })
  expect((await refusal(await call(address(['read'], false)))).status).toBe(422)
  expect((await refusal(await call(address([], false)))).status).toBe(422)
  const other = await ownShot(readFileSync('demo/footage/potter.mov'))
  expect((await refusal(await call(address(['hue'], false, other.id)))).message).toContain('another project')
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
