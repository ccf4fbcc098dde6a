// The pool of worker threads, with the names of what they can do.
import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { ContractError, JsonError, type CheckedBody, type LargeBody } from '@contracts/index'
import type { GuessSummary, LutInspection } from '@contracts/responses'
import type { BalanceAnswer } from '@core/balance'
import type { Layout, SetupShot } from '@core/continuity'
import type { MatchAnswer, SwatchAnswer } from '@core/matching'
import type { ExportSettings } from '@core/bake'
import type { Finding, Pointed } from '@core/readings'
import type { CarryAnswer, CarryTask, PlacesAnswer, PlacesTask } from './carry-frames'
import { hashAndTell } from './hash'
import { UrgentFirst, withUrgency, type Urgency } from './urgency'
import { niceness } from './yielding'
import type {
  BakedLut,
  BalanceTask,
  BodyFault,
  GradeTask,
  GuessQuestion,
  MatchTask,
  PictureCheck,
  ReadLut,
  RefusedFile,
  SourceFrame,
  SwatchTask,
  WireFrame,
} from './frame-worker'

export interface FrameWorkers {
  readonly previewFrame: (task: { source: SourceFrame; maxWidth: number; maxHeight: number }) => Promise<WireFrame>
  readonly gradeFrame: (task: GradeTask) => Promise<Uint8Array>
  readonly stillPng: (task: GradeTask) => Promise<Uint8Array>
  readonly thumbnailPng: (
    task: GradeTask & { maxWidth: number; maxHeight: number; asShot: boolean },
  ) => Promise<Uint8Array>
  readonly bakeFile: (task: GradeTask & { index: number; settings: ExportSettings; title: string }) => Promise<BakedLut>
  readonly readLutFile: (file: { path: string; packedPath: string }) => Promise<ReadLut | RefusedFile>
  readonly inspectFile: (file: { path: string }) => Promise<LutInspection>
  readonly checkPicture: (task: PictureCheck) => Promise<{ width: number; height: number } | RefusedFile>
  readonly findings: (
    task: GradeTask & { sourceBits: number; pointed: Pointed; maxWidth: number; maxHeight: number },
    urgency: Urgency,
  ) => Promise<readonly Finding[]>
  readonly carry: (task: CarryTask) => Promise<CarryAnswer>
  readonly places: (task: PlacesTask) => Promise<PlacesAnswer>
  readonly balance: (task: BalanceTask) => Promise<BalanceAnswer>
  readonly match: (task: MatchTask) => Promise<MatchAnswer>
  readonly swatches: (task: SwatchTask) => Promise<SwatchAnswer | null>
  readonly sourceLayout: (task: { source: SourceFrame }) => Promise<Layout>
  readonly groupSetups: (task: { shots: readonly SetupShot[] }) => Promise<readonly (readonly number[])[]>
  readonly guess: (question: GuessQuestion) => Promise<GuessSummary>
  readonly codeCeiling: (task: { source: SourceFrame }) => Promise<number>
  /** SHA-256 of a file in hexadecimal; `onRead`, told of mebibytes, may stop it. Undefined when stopped. */
  readonly hashFile: (path: string, onRead: (mebibytes: number) => Promise<boolean>) => Promise<string | undefined>
  /** A large request body, checked. Throws ContractError or JsonError. */
  readonly checkBody: <K extends LargeBody>(name: K, text: string) => Promise<CheckedBody<K>>
  readonly threads: number
  readonly close: () => Promise<void>
}

export function startFrameWorkers(): FrameWorkers {
  // It lies beside the running build.
  const workerFile = fileURLToPath(new URL('./frame-worker.js', import.meta.url))
  const threads = Math.min(8, Math.max(2, availableParallelism()))
  const common = {
    filename: workerFile,
    maxThreads: threads,
    maxQueue: 256,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  }
  // All of them stay: a thread that ends when idle takes its compiled grades with it, and each frame makes it anew.
  const pool = new Piscina({
    ...common,
    minThreads: threads,
    taskQueue: new UrgentFirst(),
    workerData: { niceness: niceness.seen },
  })
  // Threads cannot be put forward again, so that what goes on by itself has some of its own, far behind: they take what
  // nobody else wants, and all of it while nobody looks.
  const behind = new Piscina({
    ...common,
    minThreads: 0,
    idleTimeout: 120_000,
    workerData: { niceness: niceness.byItself },
  })
  // A file may take minutes to read: it takes no thread from those who look at pictures.
  const own = { filename: workerFile, maxThreads: 1, workerData: { niceness: niceness.seen } }
  // All that is looked at of a new file is there before its hash is.
  const reader = new Piscina({ ...own, minThreads: 1, workerData: { niceness: niceness.waitedFor } })
  // Large bodies are rare, and a save must not wait for a picture: a thread that is there while it is wanted.
  const checker = new Piscina({
    ...own,
    minThreads: 0,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  })
  const call = (name: string, urgency: Urgency) => (task: object) =>
    urgency === 'byItself' ? behind.run(task, { name }) : pool.run(withUrgency(task, urgency), { name })
  return {
    previewFrame: call('previewFrame', 'seen'),
    gradeFrame: call('gradeFrame', 'byItself'),
    stillPng: call('stillPng', 'asked'),
    thumbnailPng: call('thumbnailPng', 'seen'),
    bakeFile: call('bakeFile', 'asked'),
    readLutFile: call('readLutFile', 'asked'),
    inspectFile: call('inspectFile', 'byItself'),
    checkPicture: call('checkPicture', 'asked'),
    findings: (task, urgency) => call('findings', urgency)(task),
    carry: call('carryFrames', 'asked'),
    places: call('placesThere', 'asked'),
    balance: call('balanceFrame', 'asked'),
    match: call('matchFrames', 'asked'),
    swatches: call('matchToSwatches', 'asked'),
    sourceLayout: call('sourceLayout', 'byItself'),
    groupSetups: call('groupSetups', 'byItself'),
    guess: call('guess', 'asked'),
    codeCeiling: call('codeCeiling', 'asked'),
    checkBody: async <K extends LargeBody>(name: K, text: string) => {
      const answer = (await checker.run({ name, text }, { name: 'checkBody' })) as
        { data: CheckedBody<K> } | { fault: BodyFault }
      if ('data' in answer) return answer.data
      const { fault } = answer
      throw 'field' in fault
        ? new ContractError(fault.message, fault.field)
        : new JsonError(fault.message, fault.status)
    },
    hashFile: (path, onRead) =>
      hashAndTell((task) => reader.run(task, { name: 'hashFile' }) as Promise<string | undefined>, path, onRead),
    threads,
    close: async () => {
      await Promise.all([pool, behind, reader, checker].map((threads) => threads.close({ force: true })))
    },
  }
}
