// Correct demo frames, faults put on their light, and the aims read off the correct picture.
import { readFileSync } from 'node:fs'
import { demoShots, moveDone } from '../../demo/shots'
import type { Aim } from '@core/aims'
import {
  deltaE2000,
  displayToLab,
  fromWorkingLog,
  gamutById,
  gamutToGamut,
  toWorkingLog,
  transformPixels,
  workingGamut,
  middleGreyLog,
} from '@core/colour'
import {
  compile,
  defaultGrade,
  encodingOf,
  execute,
  buildChain,
  restSize,
  setParameter,
  whiteBalanceMatrix,
  type GradeDocument,
} from '@core/grade'
import { frameOfDecoded, sampleSignal, shrink, type Frame } from '@core/image'
import { measuredPicture, readCard, readSkin, pixelsOf, type Area, type MeasuredPicture } from '@core/readings'
import { decodedPicture } from '@media/decode'
import { decodeFrame } from '@media/single-frames'
import { probe } from '@media/probe'

export interface Fault {
  readonly stops: number
  readonly mired: number
  readonly tint: number
  readonly contrast: number
}
interface Truth {
  readonly encodingId: string
  readonly gamutId: string
  readonly exposureErrorStops: number
  readonly leadFrame: number
  readonly neutralisedBy: { readonly temperatureMired: number; readonly tint: number }
  readonly patches: { readonly leadFrame: Readonly<Record<string, readonly (readonly [number, number])[]>> }
}

export const truthOf = (id: string): Truth => JSON.parse(readFileSync(`demo/footage/${id}.truth.json`, 'utf8')) as Truth
export const none = (): undefined => undefined

/** The upright area inside four corners, as a person would draw it. */
export function areaIn(corners: readonly (readonly [number, number])[]): Area {
  const axis = (k: 0 | 1): number[] => corners.map((c) => c[k]).sort((a, b) => a - b)
  const [x, y] = [axis(0), axis(1)]
  return { left: x[1]!, right: x[2]!, top: y[1]!, bottom: y[2]! }
}

/** The lead frame of a demo clip as it was shot, and the grade that reads it. */
export async function demoFrame(
  id: string,
  width = 960,
): Promise<{ readonly source: Frame; readonly grade: GradeDocument }> {
  const truth = truthOf(id)
  const demo = demoShots.find((s) => s.id === id)!
  const path = `demo/footage/${id}.mov`
  const { facts, frameTimes } = await probe(path, path)
  const full = frameOfDecoded(
    decodedPicture(await decodeFrame(path, facts, frameTimes, truth.leadFrame), facts, demo.file.range),
  )
  return {
    source: width === full.width ? full : shrink(full, width, Math.round((width * full.height) / full.width)),
    grade: defaultGrade(truth.encodingId, truth.gamutId, demo.file.range),
  }
}

/** The same with the known faults of the clip taken away by its grade. */
export function corrected(id: string, grade: GradeDocument): GradeDocument {
  const truth = truthOf(id)
  const demo = demoShots.find((s) => s.id === id)!
  const exposed = setParameter(
    grade,
    'exposure',
    'exposureStops',
    -truth.exposureErrorStops - demo.driftStops * moveDone(demo, truth.leadFrame),
  )
  return setParameter(
    setParameter(exposed, 'white-balance', 'temperatureMired', truth.neutralisedBy.temperatureMired),
    'white-balance',
    'tint',
    truth.neutralisedBy.tint,
  )
}

/** A picture whose scene light is right, as a frame of working log, and the neutral grade that reads it. */
export function correctLight(
  source: Frame,
  grade: GradeDocument,
): { readonly frame: Frame; readonly grade: GradeDocument } {
  const light = sampleSignal(source, 1)
  const read = encodingOf(grade.read)
  for (let i = 0; i < light.length; i++) light[i] = read.curve.decode(light[i]!)
  transformPixels(gamutToGamut(gamutById(grade.read.gamutId), workingGamut), light)
  for (const step of grade.steps) {
    if (step.kind === 'exposure')
      for (let i = 0; i < light.length; i++) light[i]! *= 2 ** Number(step.params['exposureStops'])
    if (step.kind === 'white-balance')
      transformPixels(
        whiteBalanceMatrix(workingGamut, Number(step.params['temperatureMired']), Number(step.params['tint'])),
        light,
      )
  }
  return { frame: asLog(light, source), grade: defaultGrade('acescct', 'ap1') }
}

const logSpan = { low: -0.2, high: 1.1 } as const
function asLog(light: Float64Array, { width, height }: Frame): Frame {
  const data = Uint16Array.from(light, (v) =>
    Math.min(65535, Math.max(0, Math.round(((toWorkingLog(v) - logSpan.low) / (logSpan.high - logSpan.low)) * 65535))),
  )
  return { width, height, data, ...logSpan }
}

/** The frame as it would be had the light been stronger, of another colour, and its contrast another. */
export function withFault(frame: Frame, { stops, mired, tint, contrast }: Fault): Frame {
  const light = sampleSignal(frame, 1).map((v) => fromWorkingLog(middleGreyLog + (v - middleGreyLog) * contrast))
  transformPixels(whiteBalanceMatrix(workingGamut, mired, tint), light)
  return asLog(
    light.map((v) => v * 2 ** stops),
    frame,
  )
}

export const shownBy = (grade: GradeDocument, frame: Frame): Frame =>
  execute(compile(grade, none, frame, restSize), frame)

/** Card, black patch, white patch and skin as they measure on a correct picture. */
export function aimsOf(frame: Frame, grade: GradeDocument, patches: Truth['patches']['leadFrame']): readonly Aim[] {
  const picture = measuredPicture({
    source: frame,
    sourceBits: 16,
    shown: shownBy(grade, frame),
    grade,
    chain: buildChain(grade, none),
    lut: none,
  })
  const at = (name: string): Area => areaIn(patches[name]!)
  const card = at('greyCard')
  const skin = patches['skin'] ? at('skin') : null
  const own = skin && readSkin(picture, skin)
  const patch = (id: string, name: string, area: Area): Aim => ({
    id,
    name,
    rank: 1,
    want: { kind: 'luma', areas: [area], value: lumaOf(picture, area) },
  })
  return [
    {
      id: 'card',
      name: 'Card',
      rank: 1,
      want: { kind: 'light', areas: [card], stops: readCard(picture, card)!.exposureStops },
    },
    { id: 'white-card', name: 'Card, white', rank: 1, want: { kind: 'neutral', areas: [card] } },
    patch('black', 'Black patch', at('black3')),
    patch('white', 'White patch', at('white90')),
    ...(skin && own
      ? [{ id: 'skin', name: 'Skin', rank: 2, want: { kind: 'skin', area: skin, ...own } } as const]
      : []),
  ]
}

/** Mean luma of an area of the picture. */
export function lumaOf({ shown, luma }: Pick<MeasuredPicture, 'shown' | 'luma'>, area: Area): number {
  const { x0, x1, y0, y1 } = pixelsOf(area, shown)
  let sum = 0
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const i = (y * shown.width + x) * 3
      sum += luma.red * shown.data[i]! + luma.green * shown.data[i + 1]! + luma.blue * shown.data[i + 2]!
    }
  return sum / 65535 / ((x1 - x0) * (y1 - y0))
}

/** Mean CIEDE2000 over every fourth pixel of two pictures. */
export function differenceOf(a: Frame, b: Frame, displayId: string): number {
  const lab = displayToLab(displayId)
  let sum = 0
  let count = 0
  for (let i = 0; i < a.data.length; i += 12) {
    sum += deltaE2000(
      lab(a.data[i]! / 65535, a.data[i + 1]! / 65535, a.data[i + 2]! / 65535),
      lab(b.data[i]! / 65535, b.data[i + 1]! / 65535, b.data[i + 2]! / 65535),
    )
    count++
  }
  return sum / count
}
