// pale measure: the readings of a picture or clip against a house standard; exit code 1 when it lies outside, so that
// scripts can gate on it.
import { readFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { checkedStandard } from '@contracts/index'
import { encodingById, gamutById, lumaWeights } from '@core/colour'
import { proposeLead, sketch } from '@core/footage'
import { defaultGrade, setRead, type GradeDocument, type LutFinder } from '@core/grade'
import { rereadCode } from '@core/guess'
import { cut, frameOfDecoded, requireInside, shrink, videoHigh, videoLow, type Box, type Frame } from '@core/image'
import {
  cardFindings,
  defaultStandardId,
  houseStandards,
  judge,
  measuredPicture,
  gradedPicture,
  measureFrame,
  outside,
  readingKind,
  type HouseStandard,
  type Reading,
} from '@core/readings'
import { decodeAll, decodedPicture } from '@media/decode'
import { decodeFrame } from '@media/single-frames'
import { probe } from '@media/probe'
import { listOf, textOf, type Command } from '../command'
import { gradeOrPlain } from '../grade-file'
import { pictureExtensions, readPicture } from '../pictures'
import { boxOption, numberOption, UsageError } from '../usage'

export const measureCommand: Command = {
  name: 'measure',
  summary: 'readings of a picture or clip against a house standard',
  usage:
    'pale measure IN [--encoding ID] [--gamut ID] [--range full|legal] [--grade FILE] [--lut FILE …] ' +
    '[--standard ID|FILE] [--box X,Y,W,H] [--card X,Y,W,H] [--frames all|lead|N] [--json]',
  notes: [
    'Exit code 0: within the standard. 1: at least one reading lies outside it. 2: the command or the file is wrong.',
    'Without --encoding or --grade the file is taken for a finished picture of gamma 2.4, which is measured as it is.',
    `Standards: ${houseStandards.map((s) => s.id).join(', ')}, or a JSON file as the Standards view exports it.`,
    '--box measures a part of the picture, --card says where a grey card is (in pixels). Of a clip ' +
      'the lead frame is measured unless --frames says otherwise; with "all", the frame that is ' +
      'furthest outside stands for each reading.',
  ],
  options: {
    encoding: { type: 'string' },
    gamut: { type: 'string' },
    range: { type: 'string' },
    grade: { type: 'string' },
    lut: { type: 'string', multiple: true },
    standard: { type: 'string' },
    box: { type: 'string' },
    card: { type: 'string' },
    frames: { type: 'string' },
  },
  run: async (values, [input]) => {
    if (input === undefined) throw new UsageError('Name a picture or a clip: pale measure IN')
    const standard = await standardOf(textOf(values, 'standard'))
    const { grade, find, rangeGiven } = await gradeOf(values)
    const box = boxOption(textOf(values, 'box'), 'box')
    const card = boxOption(textOf(values, 'card'), 'card')
    const measure = (frame: Frame, read: GradeDocument, bits: number): readonly Reading[] =>
      measureOne(frame, read, find, bits, standard, box, card)
    const measured = pictureExtensions.has(extname(input).toLowerCase())
      ? [{ frame: 0, readings: await ofPicture(input, grade, measure) }]
      : await ofClip(input, rangeGiven ? grade : null, grade, textOf(values, 'frames') ?? 'lead', measure)
    const worst = worstOf(measured)
    const off = outside(worst.map((w) => w.reading))
    return {
      exitCode: off.length > 0 ? 1 : 0,
      json: {
        file: input,
        standard: standard.id,
        frames: measured.map((m) => m.frame),
        within: off.length === 0,
        readings: worst.map(({ reading: r, frame }) => ({
          id: r.id,
          name: r.name,
          value: r.value,
          unit: readingKind(r.id).unit,
          verdict: r.verdict,
          outside: r.weight > 0,
          confidence: r.confidence,
          target: r.target,
          frame,
          sentence: r.sentence,
          ...(r.area ? { area: r.area } : {}),
        })),
      },
      text: [
        off.length === 0
          ? `Within "${standard.name}".`
          : `${off.length} ${off.length === 1 ? 'reading lies' : 'readings lie'} outside "${standard.name}".`,
        ...worst.map(
          ({ reading: r, frame }) => `${signOf(r)} ` + `${r.sentence}${measured.length > 1 ? ` Frame ${frame}.` : ''}`,
        ),
      ].join('\n'),
    }
  },
}

function signOf({ weight, verdict }: Reading): string {
  if (weight > 0) return '▲'
  return verdict === 'met' ? '·' : ' '
}

async function standardOf(name: string | undefined): Promise<HouseStandard> {
  const found = houseStandards.find((s) => s.id === (name ?? defaultStandardId))
  if (found) return found
  const text = await readFile(name ?? '', 'utf8').catch(() => null)
  if (text === null)
    throw new UsageError(
      `There is no standard "${name?.slice(0, 60) ?? ''}"; there are ` +
        `${houseStandards.map((s) => s.id).join(', ')}, and JSON files.`,
    )
  try {
    return checkedStandard(JSON.parse(text))
  } catch (error) {
    if (error instanceof SyntaxError) throw new UsageError(`"${name ?? ''}" is not readable JSON.`)
    throw error
  }
}

async function gradeOf(
  values: Readonly<Record<string, unknown>>,
): Promise<{ grade: GradeDocument; find: LutFinder; rangeGiven: boolean }> {
  const path = textOf(values, 'grade')
  const encodingId = textOf(values, 'encoding')
  const gamutId = textOf(values, 'gamut')
  const range = textOf(values, 'range')
  const { grade, find } = await gradeOrPlain(path, listOf(values, 'lut'), defaultGrade('gamma-2.4', 'bt709'))
  let read = grade
  if (encodingId !== undefined)
    read = setRead(read, { encodingId, method: 'formula', gamutId: encodingById(encodingId).gamutIds[0] })
  if (gamutId !== undefined) read = setRead(read, { gamutId: gamutById(gamutId).id })
  if (range !== undefined && range !== 'full' && range !== 'legal')
    throw new UsageError(`--range must be full or legal, not "${range.slice(0, 40)}".`)
  if (range === 'full' || range === 'legal') read = setRead(read, { range })
  return { grade: read, find, rangeGiven: range !== undefined || path !== undefined }
}

function measureOne(
  whole: Frame,
  grade: GradeDocument,
  find: LutFinder,
  sourceBits: number,
  standard: HouseStandard,
  box: Box | null,
  card: Box | null,
): readonly Reading[] {
  const picture = gradedPicture(whole, sourceBits, grade, find)
  const readings = measureFrame(
    box ? measuredPicture({ ...picture, source: cut(whole, box), shown: cut(picture.shown, box) }) : picture,
  )
  if (card) requireInside(whole, card)
  const area = card && {
    left: card.x / whole.width,
    top: card.y / whole.height,
    right: (card.x + card.width) / whole.width,
    bottom: (card.y + card.height) / whole.height,
  }
  return judge([...readings, ...cardFindings(picture, area)], standard)
}

type Measure = (frame: Frame, grade: GradeDocument, bits: number) => readonly Reading[]

async function ofPicture(path: string, grade: GradeDocument, measure: Measure): Promise<readonly Reading[]> {
  const { width, height, data, bits } = await readPicture(path)
  if (bits === 32) throw new UsageError(`"${path}" is floating point: convert it to a display first (pale convert).`)
  const span = grade.read.range === 'legal' ? { low: videoLow, high: videoHigh } : { low: 0, high: 1 }
  const perCode = 65535 / (span.high - span.low)
  const codes = Uint16Array.from(data, (v) =>
    Math.min(65535, Math.max(0, Math.round((rereadCode(v, 'full', grade.read.range) - span.low) * perCode))),
  )
  return measure({ width, height, data: codes, ...span }, grade, bits)
}

interface MeasuredFrame {
  readonly frame: number
  readonly readings: readonly Reading[]
}

async function ofClip(
  path: string,
  given: GradeDocument | null,
  grade: GradeDocument,
  which: string,
  measure: Measure,
): Promise<readonly MeasuredFrame[]> {
  const { facts, frameTimes } = await probe(path, path)
  const read = given ?? setRead(grade, { range: facts.range })
  const frameOf = (planes: Uint8Array): Frame => frameOfDecoded(decodedPicture(planes, facts, read.read.range))
  if (which !== 'all') {
    const index = which === 'lead' ? await leadOf(path, facts) : numberOption(which, 'frames', 0, facts.frameCount - 1)
    return [
      {
        frame: Math.floor(index),
        readings: measure(frameOf(await decodeFrame(path, facts, frameTimes, Math.floor(index))), read, facts.bitDepth),
      },
    ]
  }
  const out: MeasuredFrame[] = []
  const decoder = decodeAll(path, facts)
  for await (const planes of decoder.frames)
    out.push({ frame: out.length, readings: measure(frameOf(planes), read, facts.bitDepth) })
  if (out.length === 0) throw new UsageError(`"${path}" holds no frames that can be decoded.`)
  return out
}

const glance = { width: 160, height: 90 } as const

/** The frame that stands for the clip, by the measure that the Reel proposes it by. */
async function leadOf(path: string, facts: Awaited<ReturnType<typeof probe>>['facts']): Promise<number> {
  const luma: number[] = []
  const sharpness: number[] = []
  const weights = lumaWeights(facts.matrix)
  const decoder = decodeAll(path, facts)
  for await (const planes of decoder.frames) {
    const frame = frameOfDecoded(decodedPicture(planes, facts))
    const small = shrink(frame, Math.min(glance.width, frame.width), Math.min(glance.height, frame.height))
    const pixels = small.width * small.height
    const grey = new Uint8Array(pixels * 3).fill(128)
    for (let p = 0; p < pixels; p++)
      grey[p] =
        (weights.red * (small.data[p * 3] ?? 0) +
          weights.green * (small.data[p * 3 + 1] ?? 0) +
          weights.blue * (small.data[p * 3 + 2] ?? 0)) /
        257
    const { luma: mean, sharpness: edges } = sketch(grey, small.width, small.height)
    luma.push(mean)
    sharpness.push(edges)
  }
  return luma.length === 0 ? 0 : proposeLead({ luma, sharpness }, 0, luma.length)
}

/** For each reading the frame that is furthest outside; among those inside, the first. */
function worstOf(measured: readonly MeasuredFrame[]): readonly { readonly reading: Reading; readonly frame: number }[] {
  const worst = new Map<string, { reading: Reading; frame: number }>()
  for (const { frame, readings } of measured)
    for (const reading of readings)
      if ((worst.get(reading.id)?.reading.weight ?? -1) < reading.weight) worst.set(reading.id, { reading, frame })
  return [...worst.values()].sort((a, b) => b.reading.weight - a.reading.weight)
}
