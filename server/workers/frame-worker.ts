// Long: each function is one thing that a thread can be asked for; all of them share the frames and tables it keeps.
// A server worker thread: the same core as the browser's worker, on planes that the decoder read.
import { readFileSync, writeFileSync } from 'node:fs'
import { encode as encodePng } from 'fast-png'
import { LRUCache } from 'lru-cache'
import { move, transferableSymbol, valueSymbol } from 'piscina'
import { ContractError } from '@contracts/check'
import { largeBodies, type LargeBody } from '@contracts/bodies'
import { JsonError, readJson } from '@contracts/json'
import type { GuessSummary, LutInspection } from '@contracts/responses'
import { balance, type BalanceAnswer } from '@core/balance'
import { encodingFromDefinition, type EncodingDefinition } from '@core/colour'
import { exportLut, printExport, type ExportSettings } from '@core/bake'
import { decodePng, FormatError, parseLutFile, pngHeader } from '@core/formats'
import {
  compile,
  executeExactly,
  planError,
  restSize,
  withinBound,
  type DifferenceReport,
  type GradeDocument,
  type LatticeSize,
  type PlanCache,
} from '@core/grade'
import { asItLooks, codeCeilingOf, guessEncoding, heartSize, taggedEncoding, type FileFacts } from '@core/guess'
import { frameOfDecoded, middleOfDecoded, smallFrameOfDecoded, type CodeRange, type Frame } from '@core/image'
import { inspectLut } from '@core/lut-bench'
import { lutSize, packLut, type Lut } from '@core/luts'
import { gradedPicture, measureFrame, type Finding, type Pointed } from '@core/readings'
import { hashOf, type HashTask } from './hash'
import { decodeText, framesOf, lutFinder, type GradeTask, type LutPath, type SourceFrame } from './kept'
import { yieldToServer } from './yielding'

yieldToServer()

export type { GradeTask, LutPath, SourceFrame }

/** A place of a medium that its encoding is guessed from: a frame and, where there is one, the frame right after it. */
export interface SourceSight {
  readonly source: SourceFrame
  readonly next?: SourceFrame
}
export interface WireFrame {
  readonly width: number
  readonly height: number
  readonly low: number
  readonly high: number
  readonly bytes: Uint8Array
}

/**
 * The parts of a plan, and whether it is near enough to direct evaluation to be used: judged once, on the first frame
 * it is used for.
 */
interface Judged {
  readonly parts: PlanCache
  readonly exact: boolean
}
const judgedCache = new LRUCache<string, Judged>({ max: 6 })

function gradedFrame(frame: Frame, { grade, luts }: Pick<GradeTask, 'grade' | 'luts'>, size: LatticeSize): Frame {
  // Where regions lie differs from frame to frame, and says nothing about how near the plan is.
  const key = JSON.stringify([
    { ...grade, regions: grade.regions.map(({ components: _, ...region }) => region) },
    luts,
    frame.low,
    frame.high,
    size,
  ])
  const known = judgedCache.get(key)
  const parts: PlanCache = known?.parts ?? new Map()
  const plan = compile(grade, lutFinder(luts), frame, size, parts)
  const exact = known?.exact ?? withinBound(planError(plan, frame))
  judgedCache.set(key, { parts, exact })
  return executeExactly(plan, frame, exact)
}

const bytesOf = (data: Uint16Array): Uint8Array => new Uint8Array(data.buffer, data.byteOffset, data.byteLength)

/** Code values for the browser, no larger than asked. */
export function previewFrame({
  source,
  maxWidth,
  maxHeight,
}: {
  source: SourceFrame
  maxWidth: number
  maxHeight: number
}): unknown {
  const { width, height, data, low, high } = smallFrameOfDecoded(source, maxWidth, maxHeight)
  const bytes = bytesOf(data)
  const answer: WireFrame = { width, height, low, high, bytes }
  // The pixels are handed over, not copied.
  return move({ [transferableSymbol]: [bytes.buffer], [valueSymbol]: answer })
}

/** The display signal of a frame at source size, 16 bits per channel, as the encoder takes it. */
export function gradeFrame(task: GradeTask): unknown {
  return move(bytesOf(gradedFrame(framesOf(task), task, restSize).data))
}

/** The display signal of a frame at source size as a 16-bit PNG. */
export function stillPng(task: GradeTask): Uint8Array {
  const { width, height, data } = gradedFrame(framesOf(task), task, restSize)
  return encodePng({ width, height, data, depth: 16, channels: 3 })
}

/** An 8-bit PNG for lists: graded, or the code values as they are. */
export function thumbnailPng({
  maxWidth,
  maxHeight,
  asShot,
  ...task
}: GradeTask & { maxWidth: number; maxHeight: number; asShot: boolean }): Uint8Array {
  const small = framesOf(task, maxWidth, maxHeight)
  const { width, height } = small
  const frame = asShot ? small : gradedFrame(small, task, 33)
  const scale = ((frame.high - frame.low) * 255) / 65535
  const offset = frame.low * 255
  const data = Uint8ClampedArray.from(frame.data, (code) => code * scale + offset)
  return encodePng({ width, height, data: new Uint8Array(data.buffer), depth: 8, channels: 3 })
}

export interface GuessQuestion {
  readonly sights: readonly SourceSight[]
  readonly file: FileFacts
  /** Encodings of the user's own: they take part like those that ship. */
  readonly own: readonly EncodingDefinition[]
}

/** The engine's answer about a medium, in short. */
export function guess({ sights, file, own }: GuessQuestion): GuessSummary {
  const frames = sights.map(({ source, next }) => ({
    frame: frameOfDecoded(source),
    ...(next ? { next: frameOfDecoded(middleOfDecoded(next, heartSize.width, heartSize.height)) } : {}),
  }))
  const flagged = sights[0]?.source.range ?? 'full'
  // Smaller pictures hold too little to weigh.
  if (frames.some(({ frame: { width, height } }) => width < 24 || height < 24)) return undecided(flagged, file)
  const answer = guessEncoding(frames, flagged, file, own.map(encodingFromDefinition))
  const { kind, kindProbability, groups, ranked, range, taggedId, opening, codeCeiling, sentences } = answer
  const group = groups[0]
  const first = group?.members[0] ?? ranked[0]
  if (!first) return undecided(flagged, file)
  const common = { kind, kindProbability, rangeConflict: range.conflict, opening, codeCeiling, sentences }
  if (taggedId !== null)
    return { ...common, encodingId: taggedId, range: range.likely, alike: [taggedId], probability: 1, tagged: true }
  return {
    ...common,
    encodingId: first.encodingId,
    range: first.range,
    alike: [...new Set(group?.members.map((m) => m.encodingId) ?? [first.encodingId])],
    probability: group?.probability ?? first.probability,
    tagged: false,
  }
}

/** How far up the codes of a frame go, 0..1. */
export const codeCeiling = ({ source }: { source: SourceFrame }): number => codeCeilingOf(frameOfDecoded(source))

function undecided(range: CodeRange, { transfer }: FileFacts): GuessSummary {
  const tagged = taggedEncoding(transfer)
  return {
    kind: 'display gamma',
    kindProbability: 0,
    encodingId: tagged ?? asItLooks,
    range,
    alike: [],
    probability: tagged ? 1 : 0,
    rangeConflict: false,
    tagged: tagged !== undefined,
    opening: { encodingId: tagged ?? asItLooks, because: tagged ? 'tag' : 'as it looks', asks: false, offers: [] },
    codeCeiling: 1,
    sentences: ['The picture is too small to tell its encoding.'],
  }
}

/** The readings' findings of a frame no larger than asked, as the Bench's worker measures it. */
export function findings({
  grade,
  luts,
  sourceBits,
  pointed,
  maxWidth,
  maxHeight,
  ...frames
}: GradeTask & { sourceBits: number; pointed: Pointed; maxWidth: number; maxHeight: number }): readonly Finding[] {
  return measureFrame(gradedPicture(framesOf(frames, maxWidth, maxHeight), sourceBits, grade, lutFinder(luts)), pointed)
}

/** What Balance for me would choose: for a frame no larger than asked, and for other moments of its clip. */
export interface BalanceTask extends GradeTask {
  /** The grade of the whole clip; `grade` is its state on the frame. */
  readonly document: GradeDocument
  readonly index: number
  readonly moments: readonly { readonly index: number; readonly source: SourceFrame }[]
  readonly sourceBits: number
  readonly pointed: Pointed
  readonly maxWidth: number
  readonly maxHeight: number
}
export function balanceFrame({
  document,
  index,
  moments,
  sourceBits,
  pointed,
  maxWidth,
  maxHeight,
  grade,
  luts,
  ...frames
}: BalanceTask): BalanceAnswer {
  const clip = {
    document,
    index,
    moments: moments.map((m) => ({ index: m.index, frame: framesOf({ source: m.source }, maxWidth, maxHeight) })),
  }
  const frame = framesOf(frames, maxWidth, maxHeight)
  return balance({ grade, frame, sourceBits, lut: lutFinder(luts), pointed, clip })
}

export { carryFrames, placesThere, type CarryTask, type PlacesTask } from './carry-frames'
export { matchFrames, matchToSwatches, type MatchTask, type SwatchTask } from './match-frames'
export { groupSetups, sourceLayout } from './setup-layouts'

export interface BakedLut {
  readonly file: string | Uint8Array
  readonly leftOut: readonly string[]
  readonly error: DifferenceReport
}

/** The grade as a LUT file with its error on this frame written into it. */
export function bakeFile({
  source,
  grade,
  luts,
  index,
  settings,
  title,
}: GradeTask & { index: number; settings: ExportSettings; title: string }): BakedLut {
  const made = exportLut(grade, index, lutFinder(luts), settings, title, frameOfDecoded(source))
  return { file: printExport(made, settings.format, title), leftOut: made.leftOut, error: made.error }
}

export interface ReadLut {
  readonly format: string
  readonly title: string
  readonly dimensions: Lut['dimensions']
  readonly size: number
}
/** Errors lose what they are on the way between threads. */
export interface RefusedFile {
  readonly fault: string
}
/** Reads a LUT file and keeps it packed. */
export function readLutFile({ path, packedPath }: { path: string; packedPath: string }): ReadLut | RefusedFile {
  try {
    const { format, lut } = parseLutFile(readFileSync(path), decodeText)
    writeFileSync(packedPath, packLut(lut))
    return { format, title: lut.title, dimensions: lut.dimensions, size: lutSize(lut) }
  } catch (error) {
    if (error instanceof FormatError) return { fault: error.message }
    throw error
  }
}
export function inspectFile({ path }: { path: string }): LutInspection {
  const { lut, notes } = parseLutFile(readFileSync(path), decodeText)
  return { ...inspectLut(lut), notes }
}

export interface PictureCheck {
  readonly png: Uint8Array
  readonly mostSide: number
}
/** The size of a picture that somebody sent, decoded once so that only what can be shown is kept. */
export function checkPicture({ png, mostSide }: PictureCheck): { width: number; height: number } | RefusedFile {
  try {
    const header = pngHeader(png)
    const { width, height } = header
    if (width < 1 || height < 1 || width > mostSide || height > mostSide)
      throw new FormatError(`It is ${width} × ${height}; ${mostSide} a side is the most.`, 0)
    decodePng(png, header)
    return { width, height }
  } catch (error) {
    if (error instanceof FormatError) return { fault: error.message }
    throw error
  }
}

export const hashFile = (task: HashTask): string | undefined => hashOf(task)

/** What is wrong with a body: a fault of its contract, or of its JSON. */
export type BodyFault = { readonly message: string } & (
  { readonly field: string } | { readonly status: JsonError['status'] }
)

/** Checks a large request body: the checked data, or what is wrong with them. */
export function checkBody({ name, text }: { name: LargeBody; text: string }): { data: unknown } | { fault: BodyFault } {
  try {
    return { data: largeBodies[name](readJson(text)) }
  } catch (error) {
    if (error instanceof ContractError) return { fault: { message: error.message, field: error.field } }
    if (error instanceof JsonError) return { fault: { message: error.message, status: error.status } }
    throw error
  }
}
