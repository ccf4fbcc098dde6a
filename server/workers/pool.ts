// The pool of worker threads, with the names of what they can do.
import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import type { GuessSummary, LutInspection } from '@contracts/responses'
import type { Aim, Solution } from '@core/aims'
import type { ExportSettings } from '@core/bake'
import type { Finding, Pointed } from '@core/readings'
import { hashAndTell } from './hash'
import type { BakedLut, GradeTask, GuessQuestion, ReadLut, RefusedLut, SourceFrame, WireFrame } from './frame-worker'

export interface FrameWorkers {
  readonly previewFrame: (task: { source: SourceFrame; maxWidth: number; maxHeight: number }) => Promise<WireFrame>
  readonly gradeFrame: (task: GradeTask) => Promise<Uint8Array>
  readonly stillPng: (task: GradeTask) => Promise<Uint8Array>
  readonly thumbnailPng: (
    task: GradeTask & { maxWidth: number; maxHeight: number; asShot: boolean },
  ) => Promise<Uint8Array>
  readonly bakeFile: (task: GradeTask & { index: number; settings: ExportSettings; title: string }) => Promise<BakedLut>
  readonly readLutFile: (file: { path: string; packedPath: string }) => Promise<ReadLut | RefusedLut>
  readonly inspectFile: (file: { path: string }) => Promise<LutInspection>
  readonly findings: (
    task: GradeTask & { sourceBits: number; pointed: Pointed; maxWidth: number; maxHeight: number },
  ) => Promise<readonly Finding[]>
  readonly solve: (
    task: GradeTask & { index: number; aims: readonly Aim[]; maxWidth: number; maxHeight: number },
  ) => Promise<Solution>
  readonly guess: (question: GuessQuestion) => Promise<GuessSummary>
  /** SHA-256 of a file in hexadecimal; `onRead`, told of mebibytes, may stop it. Undefined when stopped. */
  readonly hashFile: (path: string, onRead: (mebibytes: number) => Promise<boolean>) => Promise<string | undefined>
  readonly threads: number
  readonly close: () => Promise<void>
}

/** @param workerFile the built frame-worker.js; by default the one beside the running build */
export function startFrameWorkers(
  workerFile = fileURLToPath(new URL('./frame-worker.js', import.meta.url)),
): FrameWorkers {
  const threads = Math.min(8, Math.max(2, availableParallelism()))
  const pool = new Piscina({
    filename: workerFile,
    minThreads: 1,
    maxThreads: threads,
    maxQueue: 256,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  })
  // A file may take minutes to read: it takes no thread from those who look at pictures.
  const reader = new Piscina({ filename: workerFile, minThreads: 1, maxThreads: 1 })
  const call = (name: string) => (task: object) => pool.run(task, { name })
  return {
    previewFrame: call('previewFrame'),
    gradeFrame: call('gradeFrame'),
    stillPng: call('stillPng'),
    thumbnailPng: call('thumbnailPng'),
    bakeFile: call('bakeFile'),
    readLutFile: call('readLutFile'),
    inspectFile: call('inspectFile'),
    findings: call('findings'),
    solve: call('solve'),
    guess: call('guess'),
    hashFile: (path, onRead) =>
      hashAndTell((task) => reader.run(task, { name: 'hashFile' }) as Promise<string | undefined>, path, onRead),
    threads,
    close: async () => {
      await Promise.all([pool.close({ force: true }), reader.close({ force: true })])
    },
  }
}
