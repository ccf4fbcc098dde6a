// pale convert: a picture or a clip from a camera's encoding to a display, by the exact path or through a lattice.
import { extname } from 'node:path'
import { bakeLut } from '@core/bake'
import { displayById, displays, encodingById, gamutById, lightOfSignal } from '@core/colour'
import {
  buildChain,
  compile,
  defaultGrade,
  evaluateDirect,
  execute,
  framePositions,
  neighbourFrames,
  gradeAt,
  readsOtherPixels,
  rastersOf,
  restSize,
  setParameter,
  setRead,
  setShow,
  showMethods,
  signalError,
  type DifferenceReport,
  type GradeDocument,
  type LutFinder,
  type Plan,
  type PlanCache,
} from '@core/grade'
import { rereadCode } from '@core/guess'
import { frameOfDecoded, videoHigh, videoLow, type Frame } from '@core/image'
import { applyLut } from '@core/luts'
import { decodeAll, decodedPicture } from '@media/decode'
import { startEncoder } from '@media/encode'
import { probe } from '@media/probe'
import { listOf, textOf, type Command } from '../command'
import { gradeOrPlain } from '../grade-file'
import { pictureExtensions, readPicture, writePicture } from '../pictures'
import { choiceOption, numberOption, UsageError } from '../usage'

export const convertCommand: Command = {
  name: 'convert',
  summary: 'decode a picture or clip and show it on a display',
  usage:
    'pale convert IN OUT --encoding ID [--gamut ID] [--range full|legal] --display ID [--show ' +
    'straight|rolloff|print] [--exposure STOPS] [--grade FILE] [--lut FILE …] [--lattice N] [--json]',
  notes: [
    'Pictures: PNG 8/16, TIFF, EXR in; PNG 16, TIFF 16 or EXR out (EXR holds display-linear light, ' +
      'others the display signal).',
    "Clips go in as any video with Y'CbCr planes and come out as .mp4.",
    'Pictures take the exact path; --lattice N (2 to 129) forces a table of N nodes per axis and prints its error.',
    'With --grade, the grade says how to read and show; --encoding, --gamut, --range, --display, ' +
      '--show and --exposure override it.',
  ],
  options: {
    encoding: { type: 'string' },
    gamut: { type: 'string' },
    range: { type: 'string' },
    display: { type: 'string' },
    show: { type: 'string' },
    exposure: { type: 'string' },
    grade: { type: 'string' },
    lut: { type: 'string', multiple: true },
    lattice: { type: 'string' },
  },
  run: async (values, [input, output]) => {
    if (input === undefined || output === undefined)
      throw new UsageError('Name what to read and what to write: pale convert IN OUT --encoding ID --display ID')
    const { grade, find } = await gradeOf(values)
    if (pictureExtensions.has(extname(input).toLowerCase())) {
      const lattice = textOf(values, 'lattice')
      return convertPicture(input, output, grade, find, lattice === undefined ? null : wholeLattice(lattice))
    }
    if (textOf(values, 'lattice') !== undefined) throw new UsageError('--lattice is for single pictures.')
    return convertClip(input, output, grade, find, textOf(values, 'range') === undefined)
  },
}

function wholeLattice(text: string): number {
  const size = numberOption(text, 'lattice', 2, 129)
  if (!Number.isInteger(size)) throw new UsageError('--lattice must be a whole number.')
  return size
}

async function gradeOf(values: Readonly<Record<string, unknown>>): Promise<{ grade: GradeDocument; find: LutFinder }> {
  const path = textOf(values, 'grade')
  const encodingId = textOf(values, 'encoding')
  const displayId = textOf(values, 'display')
  if (path === undefined && (encodingId === undefined || displayId === undefined))
    throw new UsageError('--encoding and --display are needed (pale encodings lists the encodings), or a --grade.')
  if (displayId !== undefined && !displays.some((d) => d.id === displayId))
    throw new UsageError(
      `There is no display "${displayId.slice(0, 40)}"; there are ${displays.map((d) => d.id).join(', ')}.`,
    )
  if (encodingId !== undefined) encodingById(encodingId)
  const loaded = await gradeOrPlain(path, listOf(values, 'lut'), defaultGrade(encodingId ?? 'linear'))
  let { grade } = loaded
  const gamutId = textOf(values, 'gamut')
  const range = textOf(values, 'range')
  const show = textOf(values, 'show')
  const exposure = textOf(values, 'exposure')
  if (encodingId !== undefined)
    grade = setRead(grade, { encodingId, method: 'formula', gamutId: gamutId ?? encodingById(encodingId).gamutIds[0] })
  if (gamutId !== undefined) grade = setRead(grade, { gamutId: gamutById(gamutId).id })
  if (range !== undefined) grade = setRead(grade, { range: choiceOption(range, 'range', ['full', 'legal']) })
  if (displayId !== undefined) grade = setShow(grade, { displayId })
  if (show !== undefined)
    grade = setShow(grade, {
      method: choiceOption(
        show,
        'show',
        showMethods.map((m) => m.id).filter((id) => id !== 'lut'),
      ),
    })
  if (exposure !== undefined) {
    const step = grade.steps.find((s) => s.kind === 'exposure' && s.regionId === undefined)
    if (!step) throw new UsageError('The grade has no exposure step to set.')
    grade = setParameter(grade, step.id, 'exposureStops', numberOption(exposure, 'exposure', -8, 8))
  }
  return { grade, find: loaded.find }
}

// A band of rows at a time keeps memory bounded for large pictures.
const bandPixels = 262_144

async function convertPicture(
  input: string,
  output: string,
  grade: GradeDocument,
  find: LutFinder,
  lattice: number | null,
): Promise<{ json: unknown; text: string }> {
  const kind = extname(output).toLowerCase()
  if (!pictureExtensions.has(kind)) throw new UsageError(`"${output}" must end in .png, .tif or .exr.`)
  const picture = await readPicture(input)
  const chain = buildChain(gradeAt(grade, 0), find)
  const table = lattice === null ? null : bakeLut(gradeAt(grade, 0), find, lattice, 'pale convert')
  const { width, height, data } = picture
  const out = new Float64Array(data.length)
  const legal = grade.read.range === 'legal' && picture.bits !== 32
  const rasters = readsOtherPixels(chain) ? rastersOf(chain, frameOf(picture, legal), true) : null
  let worst: DifferenceReport | null = null
  for (let first = 0; first < width * height; first += bandPixels) {
    const count = Math.min(bandPixels, width * height - first)
    const codes = Float64Array.from(data.subarray(first * 3, (first + count) * 3), (v) =>
      legal ? rereadCode(v, 'full', 'legal') : v,
    )
    const direct = codes.slice()
    const positions = framePositions(width, height, 1, first, count)
    evaluateDirect(chain, direct, rasters ? { ...positions, rasters } : positions)
    if (table) {
      applyLut(table, codes, 'tetrahedral')
      const report = signalError(direct, codes, grade.show.displayId)
      if (!worst || report.worst > worst.worst) worst = report
    }
    out.set(table ? codes : direct, first * 3)
  }
  if (kind === '.exr') toLight(out, grade.show.displayId)
  await writePicture(output, width, height, out)
  const told = worst
    ? `Through ${lattice} nodes per axis, ${worst.measure}: mean ${worst.mean.toFixed(3)}, worst ` +
      `${worst.worst.toFixed(2)}.`
    : ''
  return {
    json: { file: output, width, height, lattice, error: worst },
    text: `${output}: ${width}×${height}, ${displayById(grade.show.displayId).name}.${told}`,
  }
}

/** The picture in 16 bits: what keys and neighbourhoods are worked out on. */
function frameOf(
  { width, height, data }: { readonly width: number; readonly height: number; readonly data: ArrayLike<number> },
  legal: boolean,
): Frame {
  const codes = new Uint16Array(data.length)
  const span = videoHigh - videoLow
  for (let i = 0; i < codes.length; i++)
    codes[i] = Math.min(
      65535,
      Math.max(
        0,
        (((legal ? rereadCode(data[i] ?? 0, 'full', 'legal') : (data[i] ?? 0)) - videoLow) / span) * 65535 + 0.5,
      ),
    )
  return { width, height, data: codes, low: videoLow, high: videoHigh }
}

/** Frames with those about them that the grade looks at. */
async function* withAround(frames: AsyncIterable<Frame>, grade: GradeDocument, count: number): AsyncIterable<Frame> {
  const held = new Map<number, Frame>()
  const reach = Math.max(0, ...neighbourFrames(grade, 0, -Infinity, Infinity))
  let decoded = 0
  let next = 0
  const ready = (): Frame => {
    const index = next++
    const own = held.get(index)
    if (!own) throw new Error(`Frame ${index} was let go of too early.`)
    const neighbours = neighbourFrames(grade, index, 0, count - 1)
    held.delete(index - reach)
    return neighbours.length === 0
      ? own
      : {
          ...own,
          around: new Map(
            neighbours.flatMap((away) => {
              const other = held.get(index + away)
              return other ? [[away, other] as const] : []
            }),
          ),
        }
  }
  for await (const frame of frames) {
    held.set(decoded++, frame)
    if (decoded - next > reach) yield ready()
  }
  while (next < decoded) yield ready()
}

function toLight(signal: Float64Array, displayId: string): void {
  const light = lightOfSignal(displayById(displayId))
  for (let i = 0; i < signal.length; i += 3)
    signal.set(light(signal[i] ?? 0, signal[i + 1] ?? 0, signal[i + 2] ?? 0), i)
}

async function convertClip(
  input: string,
  output: string,
  given: GradeDocument,
  find: LutFinder,
  rangeFromFile: boolean,
): Promise<{ json: unknown; text: string }> {
  if (extname(output).toLowerCase() !== '.mp4') throw new UsageError(`A clip is written as .mp4, not "${output}".`)
  const { facts } = await probe(input, input)
  const grade = rangeFromFile ? setRead(given, { range: facts.range }) : given
  const decoder = decodeAll(input, facts)
  const encoder = startEncoder(output, facts, grade.show.displayId)
  let frames = 0
  const built: PlanCache = new Map()
  let plan = null as { readonly grade: GradeDocument; readonly plan: Plan } | null
  try {
    const readable = (async function* () {
      for await (const planes of decoder.frames) yield frameOfDecoded(decodedPicture(planes, facts, grade.read.range))
    })()
    for await (const frame of withAround(readable, grade, facts.frameCount)) {
      const now = gradeAt(grade, frames)
      if (plan?.grade !== now) plan = { grade: now, plan: compile(now, find, frame, restSize, built) }
      const { data } = execute(plan.plan, frame)
      await encoder.write(Buffer.from(data.buffer, data.byteOffset, data.byteLength))
      frames++
    }
    await encoder.finish()
  } finally {
    decoder.stop()
    encoder.stop()
  }
  if (frames !== facts.frameCount)
    throw new UsageError(`Only ${frames} of ${facts.frameCount} frames of "${input}" could be decoded.`)
  return {
    json: { file: output, frames },
    text: `${output}: ${frames} frames, ${displayById(grade.show.displayId).name}.`,
  }
}
