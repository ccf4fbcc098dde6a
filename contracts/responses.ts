// Long: all answers of the server stand together, so that a change of the API is seen in one diff.
// What the server answers.
import type { RevisionWhy } from './requests'
import type { EncodingDefinition, MatrixId, Vector3 } from '@core/colour'
import type { DefaultRendering, GradeDocument, RecipeStep, ShowDefaults } from '@core/grade'
import type { Opening } from '@core/guess'
import type { CodeRange, QuarterTurn } from '@core/image'
import type { Expectation, Inspection } from '@core/lut-bench'
import type { Area, Finding, SubjectCard } from '@core/readings'

/** The one shape of an error on the wire. */
export interface ErrorBody {
  readonly error: { readonly code: string; readonly message: string; readonly field?: string; readonly hint?: string }
}

/** The frames of the medium that a shot is. */
export interface FrameRange {
  readonly firstFrame: number
  readonly frameCount: number
}

export interface ProjectSummary {
  readonly id: string
  readonly name: string
  readonly shotCount: number
  readonly updatedAt: string
  readonly firstShotId: string | null
  /** A picture of each of its first scenes, shots without a scene as one of them; none without shots. */
  readonly pictures: readonly (FrameRange & { readonly revisionId: string; readonly frame: number })[]
  /** Shots that are finished. */
  readonly finishedCount: number
  readonly renders: { readonly underWay: number; readonly done: number }
  /** It is kept, out of the way. */
  readonly archived: boolean
}

/** Facts about a file's picture that matter to colour. */
export interface MediaFacts {
  /** A film in one file, numbered pictures, or one picture. */
  readonly kind: 'film' | 'pictures' | 'still'
  /** Size in pixels as the picture is shown: after turning. */
  readonly width: number
  readonly height: number
  /** Width of a pixel by its height. */
  readonly pixelAspect: readonly [number, number]
  /** Clockwise turn that the file asks for; it is applied. */
  readonly rotation: QuarterTurn
  readonly frameCount: number
  /** Exact frame rate as numerator and denominator. */
  readonly rateNumerator: number
  readonly rateDenominator: number
  /** Slowest and fastest rate in frames per second, where the file does not keep to one. */
  readonly variableRate: readonly [number, number] | null
  readonly durationSeconds: number
  /** How far before a frame a decoder must begin to be sure to have it. */
  readonly seekMarginSeconds: number
  /** HH:MM:SS:FF of the first frame; a semicolon before the frames means drop-frame counting. */
  readonly startTimecode: string | null
  readonly container: string
  readonly codec: string
  /** How the file stores its samples, and the planes they are decoded to: the same samples in another order. */
  readonly storedFormat: string
  readonly pixelFormat: string
  /** 32 means floating point. */
  readonly bitDepth: number
  readonly chroma: '4:2:0' | '4:2:2' | '4:4:4' | 'RGB' | 'grey'
  readonly interlaced: 'top first' | 'bottom first' | null
  readonly range: CodeRange
  /** True when the file itself says its range. */
  readonly rangeTagged: boolean
  readonly matrix: MatrixId
  readonly matrixTagged: boolean
  /** Tags of the file, by the names that ffprobe gives them; absent when the file does not say. */
  readonly transfer?: string
  readonly primaries?: string
  /** What else the file says of itself, by its own keys, as it says it: shown, and told apart by, never interpreted. */
  readonly said?: readonly (readonly [string, string])[]
  /** Numbers of frames that stand alone, a few spread over the file: these are decoded without those before them. */
  readonly keyFrames?: readonly number[]
}

/** The colour engine's answer about a medium, as it was when the medium came in. */
export interface GuessSummary {
  readonly kind: string
  readonly kindProbability: number
  readonly encodingId: string
  readonly range: CodeRange
  /** Encodings that no picture can tell from the first, itself included. */
  readonly alike: readonly string[]
  /** Of the whole group. */
  readonly probability: number
  /** The file states one range, and the pixels may well have another. */
  readonly rangeConflict: boolean
  /** The answer came from the file's own tags. */
  readonly tagged: boolean
  /** How the medium opens, and whether it is asked which of the offers it is. */
  readonly opening: Opening
  /** The highest code in use, 0..1: files of one camera and setting share it. */
  readonly codeCeiling: number
  readonly sentences: readonly string[]
}

/** A proxy for playback: every frame stands alone, frame n lies at n / rate seconds. */
export interface ProxyFacts {
  readonly width: number
  readonly height: number
  readonly bitDepth: 10
  /** All chroma is kept where the original has it all. */
  readonly chroma: '4:2:2' | '4:4:4'
  /** Of the samples in the proxy. `source` is as the original's, whatever that is read as. */
  readonly range: 'source' | 'full'
  readonly matrix: MatrixId
  /** The signal of the proxy's black and white, where they carry more than 0 and 1. */
  readonly low: number
  readonly high: number
  /** Clockwise turn still to be applied. */
  readonly rotation: QuarterTurn
}

export type ShotState = 'new' | 'corrected' | 'matched' | 'finished'

export interface ShotSummary {
  readonly id: string
  readonly projectId: string
  readonly name: string
  readonly position: number
  readonly sceneId: string | null
  readonly scene: string | null
  readonly cameraName: string | null
  /** Frames count in the medium: the shot is firstFrame up to firstFrame + frameCount. */
  readonly firstFrame: number
  readonly frameCount: number
  readonly leadFrame: number
  readonly leadChosen: boolean
  /** The rate it is played at, where that is not the one it was shot at. */
  readonly played: { readonly numerator: number; readonly denominator: number } | null
  readonly state: ShotState
  /** Its own house standard, or that of its scene, or of the project. */
  readonly standardId: string
  readonly ownStandardId: string | null
  /** `linked`: its original lies in the media folder, not in the store. */
  readonly media: MediaFacts & { readonly hash: string; readonly linked: boolean }
  readonly proxy: ProxyFacts | null
  readonly guess: GuessSummary | null
  /** A person said that it is meant to be seen as its file looks. */
  readonly staysAsItLooks: boolean
  /** Shared by files of one camera and setting; empty where that is not known. */
  readonly likeness: string
  /** What shots of such files are read by, where somebody chose it for some and this one is asked about. */
  readonly usualReading: {
    readonly encodingId: string
    readonly gamutId: string
    readonly own?: EncodingDefinition
    readonly shots: number
  } | null
  /** The shots it is corrected together with, itself counted in. */
  readonly setup: { readonly id: string; readonly name: string; readonly shots: number } | null
  /**
   * The shared look it carries, or would without being taken out of it; `strength` is the scene's or project's,
   * `ownStrength` the shot's.
   */
  readonly look: {
    readonly id: string
    readonly name: string
    readonly from: 'project' | 'scene'
    readonly strength: number
    readonly ownStrength: number
    readonly detached: boolean
  } | null
  /** What was said of moments of it. */
  readonly notes: readonly { readonly id: string; readonly frame: number; readonly words: string }[]
  readonly headId: string
  readonly read: GradeDocument['read']
  readonly displayId: string
  /** Number of revisions up to the present one: 1 means untouched. */
  readonly revisionDepth: number
}

/** A reference picture; its pixels are at /scene-pictures/{id}. */
export interface ScenePicture {
  readonly id: string
  readonly name: string
  readonly width: number
  readonly height: number
}
export interface SceneSummary {
  readonly id: string
  readonly name: string
  readonly position: number
  /** What it should feel like, in words and in pictures. */ readonly intent: string
  readonly pictures: readonly ScenePicture[]
}
/** What shots have of a project or scene; null where it inherits. */
export interface Defaults {
  readonly displayId: string | null
  readonly rendering: DefaultRendering | null
  readonly standardId: string | null
}
export interface ProjectDefaults {
  readonly project: Defaults
  /** By the scenes' ids. */
  readonly scenes: Readonly<Record<string, Defaults>>
}
/** A change of defaults that was made: what was before, and how many shots moved with it. */
export interface DefaultsMoved {
  readonly before: Defaults
  readonly moved: number
}
/** What is proposed for a shot as it is at revision `headId`: the first choice is advised; there may be none. */
export interface ShotProposal {
  readonly shotId: string
  readonly headId: string
  readonly note: string
  readonly choices: readonly {
    readonly id: string
    readonly name: string
    readonly sentence: string
    readonly sure: boolean
    /** What it changes, in words; nothing where it leaves the shot as it is. */
    readonly changes: readonly string[]
    readonly grade: GradeDocument
    /** What was aimed at, in words, met or not. */
    readonly aims?: readonly string[]
  }[]
  /** Of a match: what both pictures show, by which it was found. */
  readonly surfaces?: readonly SharedSwatch[]
  /** Of a grade that is carried: where its regions and subjects were found. */
  readonly places?: readonly ProposedPlace[]
  /** What would be lost that is not lost now, and what else lies outside the standard. */
  readonly losses?: readonly string[]
  readonly outside?: readonly OutsideReading[]
}
/** A reading that lies outside its standard and is not ignored. */
export interface OutsideReading {
  readonly reading: string
  /** The subject's name, for readings of a subject; else empty. */
  readonly subject: string
  readonly sentence: string
  /** Why it may well stay so; empty where only a person can say. */
  readonly reason: string
}
/** A region of the proposed grade, or a subject, as it was found in the shot's lead frame. */
export interface ProposedPlace {
  readonly kind: 'region' | 'subject'
  readonly id: string
  readonly name: string
  /** Else a person says where it lies. */
  readonly sure: boolean
  /** A subject's place. */
  readonly area?: Area
}
/** One surface as a reference and a shot show it: display signal, 0..1. */
export interface SharedSwatch {
  readonly id: number
  readonly shown: { readonly here: Vector3; readonly before: Vector3; readonly after: Vector3 }
  readonly hereArea: Area
  readonly thereArea: Area
  /** ΔE 2000, in high range ΔE ITP. */
  readonly before: number
  readonly after: number
  readonly places: number
  /** It was left out, for it changed between the shots. */
  readonly struck: boolean
}
export interface LookSummary {
  readonly id: string
  readonly name: string
  readonly steps: readonly RecipeStep[]
  readonly wholeProject: boolean
  /** Names of the scenes that carry it. */ readonly scenes: readonly string[]
}

export interface WorkSummary {
  readonly id: string
  readonly kind: 'import' | 'survey'
  readonly name: string
  readonly mediaHash: string | null
  readonly state: 'queued' | 'running' | 'done' | 'failed' | 'cancelled'
  readonly stage: string
  readonly done: number
  readonly total: number
  readonly error: string | null
  readonly hint: string | null
}

/** A file or folder below the server's media folder. */
export interface FolderEntry {
  readonly name: string
  readonly path: string
  readonly kind: 'folder' | 'file' | 'pictures'
  readonly sizeBytes: number
}

export interface RevisionState {
  readonly headId: string
  readonly grade: GradeDocument
  readonly summary: string
  readonly savedAt: string
  readonly canUndo: boolean
  readonly canRedo: boolean
  /** The program made it by itself, of what it found in the file after the shot had opened. */
  readonly byItself: boolean
}

/** A revision in the record. */
export interface RecordEntry {
  readonly id: string
  readonly parentId: string | null
  readonly depth: number
  readonly summary: string
  readonly why: RevisionWhy | null
  readonly actor: string
  readonly at: string
  /** What it changed against its parent, in words and numbers. */
  readonly changes: readonly string[]
}
export interface VersionSummary {
  readonly id: string
  readonly name: string
  readonly revisionId: string
  readonly actor: string
  readonly at: string
}
/** Newest first. Redo leads from the head to the tip. */
export interface ShotRecord {
  readonly headId: string
  readonly tipId: string
  readonly revisions: readonly RecordEntry[]
  readonly versions: readonly VersionSummary[]
  /** Where the page behind this one begins, as the query's `behind`; null behind the last. */
  readonly next: string | null
}

/** A shot on the grade sheet: all that one needs to know what was done and why. */
export interface SheetReading {
  readonly name: string
  readonly unit: string
  readonly before: string | null
  readonly after: string | null
  readonly target: string
  readonly verdict: 'met' | 'low' | 'high' | null
  readonly waived: string | null
}
export interface ShotSheet {
  readonly id: string
  readonly name: string
  readonly scene: string | null
  readonly camera: string | null
  readonly source: string
  /** Counted from the shot's first frame. */
  readonly leadFrame: number
  /** The same frame, counted in the medium. */
  readonly firstFrame: number
  readonly stillFrame: number
  readonly frameCount: number
  readonly encoding: string
  readonly evidence: readonly string[]
  readonly display: string
  readonly standard: string
  readonly controls: readonly { readonly step: string; readonly words: string }[]
  readonly aims: readonly string[]
  readonly readings: readonly SheetReading[]
  readonly record: readonly {
    readonly depth: number
    readonly at: string
    readonly actor: string
    readonly summary: string
    readonly changes: readonly string[]
  }[]
  readonly firstRevisionId: string
  readonly headId: string
}
export interface GradeSheet {
  readonly project: string
  readonly made: string
  readonly shots: readonly ShotSheet[]
}

/** What came of carrying a grade to a shot. */
export interface ShotDetail extends ShotSummary {
  readonly projectName: string
  /** The display and rendering it has unless a hand chose otherwise. */
  readonly showDefaults: ShowDefaults
  /** What its scene should feel like; empty without a scene or words. */
  readonly intent: string
  /** Pictures of what its scene should feel like. */
  readonly intentPictures: readonly ScenePicture[]
  /** The other shots of the project that are asked about and of files like this one's. */
  readonly askedLikeIt: readonly string[]
  readonly previousShotId: string | null
  readonly nextShotId: string | null
  readonly revision: RevisionState
  /** Where a grey card lies in the shot, when someone pointed at it. */
  readonly card: PlacedArea | null
  /** All subjects of the project, and where each lies in this shot. */
  readonly subjects: readonly SubjectSummary[]
  /** Readings that are waived for this shot. */
  readonly waivers: readonly Waiver[]
}

/** Where in a shot something lies. */
export interface PlacedArea {
  readonly frame: number
  readonly area: Area
}
export interface SubjectSummary {
  readonly id: string
  readonly name: string
  readonly card: SubjectCard
  readonly here: PlacedArea | null
}
/** How a waived reading stands: the newest entry of its record. */
export interface Waiver {
  readonly reading: string
  readonly subject: string
  readonly reason: string
  readonly actor: string
  readonly at: string
}

/** What the readings found on a shot's frame through its present grade, before any standard. */
export interface ShotFindings {
  readonly headId: string
  readonly leadFrame: number
  /** The frame that was measured. */
  readonly frame: number
  readonly findings: readonly Finding[]
  readonly waivers: readonly Waiver[]
}

/** A picture on the shelf: a frame of a shot as it was graded then, or, where `from` is null, an imported one. */
export interface Still {
  readonly id: string
  readonly name: string
  readonly notes: string
  readonly at: string
  readonly from:
    | ({
        readonly shotId: string
        readonly name: string
        readonly revisionId: string
        readonly frame: number
      } & FrameRange)
    | null
}

/** Frames of a shot that it can be looked at by, counted in the medium. */
export interface ShotMoments {
  readonly shotId: string
  readonly lead: number
  readonly first: number
  readonly last: number
  /** By what the camera recorded; null until the frames were surveyed. */
  readonly darkest: number | null
  readonly brightest: number | null
}

export interface LutSummary {
  readonly hash: string
  readonly name: string
  readonly title: string
  /** The folder it came in; empty for one that came alone. */
  readonly folder: string
  readonly format: string
  readonly dimensions: 1 | 3 | 'sequence'
  /** Entries per axis of its largest table. */
  readonly size: number
  /** What it was made for; null until it has been inspected. */
  readonly expects: Expectation | null
  /** Taken off the list; grades that use it go on doing so. */
  readonly removed: boolean
}

/** What was found in a LUT file; `notes` say what of the file was left out of account. */
export type LutInspection = Inspection & { readonly notes: readonly string[] }

export type RenderState = 'queued' | 'running' | 'done' | 'failed' | 'cancelled'
export interface RenderSummary extends FrameRange {
  readonly id: string
  readonly shotId: string
  readonly shotName: string
  readonly leadFrame: number
  readonly revisionId: string
  readonly state: RenderState
  readonly framesDone: number
  readonly framesTotal: number
  readonly error: string | null
  readonly sizeBytes: number | null
  readonly createdAt: string
}
