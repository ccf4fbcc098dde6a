// Keys on the demo portraits, against what is truly skin in them: the clips' own noise, one pick on the skin, one press
// to clean.
import { readFileSync } from 'node:fs'
import { decode } from 'fast-png'
import { windowBetween } from '../../demo/encode/plate'
import { demoShots, footage, moveDone } from '../../demo/shots'
import { compileMattes, drawMatte, planesAt, restSize, type GradeDocument } from '@core/grade'
import { frameOfDecoded, type Frame } from '@core/image'
import type { Area } from '@core/readings'
import {
  chatterOf,
  fitKey,
  freshKey,
  judgeMatte,
  noCleaning,
  overlapOf,
  sampleOf,
  usualCleaning,
  type Cleaning,
  type Key,
  type KeySample,
  type Region,
} from '@core/regions'
import { decodedPicture } from '@media/decode'
import { decodeFrame } from '@media/single-frames'
import { probe } from '@media/probe'
import { areaIn, demoFrame, none, truthOf } from '../aims/faults'

/** The oval that a hand draws about the head; without the key it is mostly wrong. */
const ovals = { potter: [0.508, 0.538, 0.5, 0.23, -13], apprentice: [0.535, 0.491, 0.241, 0.363, -1] } as const
const { width, height } = footage

function regionWith(id: keyof typeof ovals, key: Key, cleaning: Cleaning): Region {
  const [centreX, centreY, radiusX, radiusY, rotationDegrees] = ovals[id]
  return {
    id: 'face',
    name: 'Face',
    enabled: true,
    invert: false,
    strength: 1,
    components: [
      { id: 'key', mode: 'add', invert: false, opacity: 1, source: { kind: 'key', key, cleaning } },
      {
        id: 'oval',
        mode: 'intersect',
        invert: false,
        opacity: 1,
        source: {
          kind: 'shape',
          inner: 0.015,
          outer: 0.015,
          shape: { kind: 'ellipse', centreX, centreY, radiusX, radiusY, rotationDegrees },
        },
      },
    ],
  }
}

/** Frames of a demo clip from one on, by their number. */
async function clipOf(id: string, first: number, count: number): Promise<ReadonlyMap<number, Frame>> {
  const path = `demo/footage/${id}.mov`
  const { facts, frameTimes } = await probe(path, path)
  const range = demoShots.find((s) => s.id === id)!.file.range
  const out = new Map<number, Frame>()
  for (let n = first; n < first + count; n++)
    out.set(n, frameOfDecoded(decodedPicture(await decodeFrame(path, facts, frameTimes, n), facts, range)))
  return out
}

const steadied = (clip: ReadonlyMap<number, Frame>, n: number): Frame => ({
  ...clip.get(n)!,
  around: new Map([-2, -1, 1, 2].map((away) => [away, clip.get(n + away)!])),
})
const drawn = (grade: GradeDocument, region: Region, frame: Frame): Float32Array => {
  const whole = { ...grade, regions: [region] }
  return drawMatte(compileMattes(whole, none, frame, restSize), region, frame, { from: 0, to: frame.height })
}

/** A matte of the next frame brought back to this one by the camera's known move: what still differs is noise. */
function broughtBack(id: string, matte: Float32Array, n: number): Float32Array {
  const shot = demoShots.find((s) => s.id === id)!
  const [here, next] = [n, n + 1].map((at) => windowBetween(shot.from, shot.to, moveDone(shot, at)))
  const out = new Float32Array(matte.length)
  const turned = (x: number, y: number, degrees: number, size: number): readonly [number, number] => {
    const a = (degrees * Math.PI) / 180
    return [(x * Math.cos(a) - y * Math.sin(a)) * size, (x * Math.sin(a) + y * Math.cos(a)) * size]
  }
  const [plateWidth, plateHeight] = [1280, 720]
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = turned(
        x + 0.5 - width / 2,
        y + 0.5 - height / 2,
        here!.rollDegrees,
        (here!.width * plateWidth) / width,
      )
      const [u, v] = turned(
        here!.x * plateWidth + px - next!.x * plateWidth,
        here!.y * plateHeight + py - next!.y * plateHeight,
        -next!.rollDegrees,
        width / (next!.width * plateWidth),
      )
      const sx = Math.min(width - 1.001, Math.max(0, u + width / 2 - 0.5))
      const sy = Math.min(height - 1.001, Math.max(0, v + height / 2 - 0.5))
      const i = Math.floor(sy) * width + Math.floor(sx)
      const fx = sx % 1
      const fy = sy % 1
      out[y * width + x] =
        (matte[i]! * (1 - fx) + matte[i + 1]! * fx) * (1 - fy) +
        (matte[i + width]! * (1 - fx) + matte[i + width + 1]! * fx) * fy
    }
  return out
}

test.each(['potter', 'apprentice'] as const)(
  '%s: one pick and clean hold the skin, and hardly chatter',
  async (id) => {
    const { grade } = await demoFrame(id)
    const { leadFrame, patches } = truthOf(id)
    const clip = await clipOf(id, leadFrame - 2, 6)
    const frame = clip.get(leadFrame)!
    const skin = Float32Array.from(
      decode(readFileSync(`demo/footage/${id}.skin.png`)).data as Uint8Array,
      (v) => v / 255,
    )
    const pick = (area: Area): KeySample =>
      sampleOf(
        planesAt(
          compileMattes({ ...grade, regions: [regionWith(id, freshKey, noCleaning)] }, none, frame, restSize),
          frame,
          'hue',
        ),
        'add',
        area,
      )
    const samples = [pick(areaIn(patches.leadFrame['skin']!))]
    const key: Key = { ...freshKey, samples, groups: fitKey(samples) }
    const raw = drawn(grade, regionWith(id, key, noCleaning), frame)
    const region = regionWith(id, key, usualCleaning)
    const clean = drawn(grade, region, steadied(clip, leadFrame))
    expect(overlapOf(clean, skin)).toBeGreaterThanOrEqual(0.9)
    // It is the key that finds the skin, not the oval.
    expect(
      overlapOf(
        drawn(grade, { ...region, components: region.components.slice(1).map((p) => ({ ...p, mode: 'add' })) }, frame),
        skin,
      ),
    ).toBeLessThan(0.6)
    const before = judgeMatte({ width, height, values: raw })
    const after = judgeMatte({ width, height, values: clean })
    expect(after.specks).toBeLessThanOrEqual(2)
    expect(before.specks).toBeGreaterThan(50)
    expect(after.hardEdge).toBeLessThan(before.hardEdge)
    const next = drawn(grade, region, steadied(clip, leadFrame + 1))
    expect(
      chatterOf({ width, height, values: clean }, { width, height, values: broughtBack(id, next, leadFrame) }),
    ).toBeLessThanOrEqual(0.02)
  },
  60_000,
)
