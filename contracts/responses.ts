// What the server answers.
import type { CodeRange, GradeDocument, MatrixId } from '@core/index'

/** The one shape of an error on the wire. */
export interface ErrorBody {
  readonly error: { readonly code: string; readonly message: string; readonly field?: string; readonly hint?: string }
}

export interface ProjectSummary { readonly id: string; readonly name: string; readonly shotCount: number; readonly updatedAt: string; readonly firstShotId: string | null; readonly firstRevisionId: string | null }

/** Facts about a file's picture that matter to colour. */
export interface MediaFacts {
  readonly width: number
  readonly height: number
  readonly frameCount: number
  /** Exact frame rate as numerator and denominator. */
  readonly rateNumerator: number
  readonly rateDenominator: number
  readonly codec: string
  readonly pixelFormat: string
  readonly bitDepth: number
  readonly chroma: '4:2:0' | '4:2:2' | '4:4:4'
  readonly range: CodeRange
  /** True when the file itself says its range. */
  readonly rangeTagged: boolean
  readonly matrix: MatrixId
  /** The transfer tag of the file, by the name that ffprobe gives it; absent when the file does not say. */
  readonly transfer?: string
}

export interface ShotSummary {
  readonly id: string
  readonly projectId: string
  readonly name: string
  readonly scene: string | null
  readonly cameraName: string | null
  readonly leadFrame: number
  readonly media: MediaFacts & { readonly hash: string }
  readonly headId: string
  readonly read: GradeDocument['read']
  /** Number of revisions up to the present one: 1 means untouched. */
  readonly revisionDepth: number
}

export interface RevisionState {
  readonly headId: string
  readonly grade: GradeDocument
  readonly summary: string
  readonly savedAt: string
  readonly canUndo: boolean
  readonly canRedo: boolean
}

export interface ShotDetail extends ShotSummary {
  readonly projectName: string
  readonly previousShotId: string | null
  readonly nextShotId: string | null
  readonly revision: RevisionState
}

export interface LutSummary { readonly hash: string; readonly name: string; readonly title: string; readonly dimensions: 1 | 3; readonly size: number }

export type RenderState = 'queued' | 'running' | 'done' | 'failed' | 'cancelled'
export interface RenderSummary {
  readonly id: string
  readonly shotId: string
  readonly shotName: string
  readonly revisionId: string
  readonly state: RenderState
  readonly framesDone: number
  readonly framesTotal: number
  readonly error: string | null
  readonly sizeBytes: number | null
  readonly createdAt: string
}
