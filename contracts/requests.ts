// What the browser may ask of the server, as contracts.
import { oneLine } from '@core/names'
import 'reflect-metadata'
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
} from 'class-validator'
import { carriedStations, type CarriedStation } from '@core/aims'
import { displays, isEncodingId } from '@core/colour'
import { defaultRenderings, type DefaultRendering } from '@core/grade'
import { ListOf, Listed, PartOf } from './parts'

// Printable text on one line: no control characters.

export class NewProject {
  @IsString() @Length(1, 80) @Matches(oneLine) name!: string
}

/** What can be changed of a project: its name, and whether it is put out of the way. */
export class ProjectChange {
  @IsOptional() @IsString() @Length(1, 80) @Matches(oneLine) name?: string
  @IsOptional() @IsBoolean() archived?: boolean
}

export const whyKinds = [
  'hand',
  'aim',
  'balance',
  'reading',
  'carried',
  'matched',
  'back',
  'cdl',
  'setup',
  'look',
  'defaults',
  'opening',
] as const
/** Why a revision was made, beyond what it changed. */
export class RevisionWhy {
  @IsIn(whyKinds) kind!: (typeof whyKinds)[number]
  /** The aims in words, met or not. */
  @IsOptional()
  @Listed({ max: 40 })
  @IsString({ each: true })
  @Length(1, 200, { each: true })
  @Matches(oneLine, { each: true })
  aims?: string[]
  /** The revision that was gone back to, or that the grade was carried from or matched to. */
  @IsOptional() @IsUUID() from?: string
}

export class NewRevision {
  /** The revision the edit was made on; when it is no longer the shot's present one, the answer is 409. */
  @IsUUID() parentId!: string
  @IsString() @Length(1, 400) @Matches(oneLine) summary!: string
  @IsOptional() @PartOf(() => RevisionWhy) why?: RevisionWhy
  /** The other shots of the set-up do not follow. */
  @IsOptional() @IsBoolean() alone?: boolean
  /** A grade document; checked by checkedGrade. */
  @IsObject() grade!: object
}

export class NewVersion {
  @IsUUID() revisionId!: string
  @IsString() @Length(1, 60) @Matches(oneLine) name!: string
}

/** What was made on `parentId` while the shot went on: kept beside it under a name. */
export class NewFork {
  @IsUUID() parentId!: string
  @IsString() @Length(1, 400) @Matches(oneLine) summary!: string
  @IsString() @Length(1, 60) @Matches(oneLine) name!: string
  @IsObject() grade!: object
}

/** Makes an earlier grade the present one, as a new revision: what came after stays in the record. */
export class GoBack {
  @IsUUID() expectedId!: string
  @IsUUID() revisionId!: string
}

/** A grade, or some stations of it, from another shot of the project. */
export class CarryOver {
  /** An earlier grade of that shot; its present one without it. */
  @IsOptional() @IsUUID() revisionId?: string
  /** The frame that grade was kept at. */
  @IsOptional() @IsInt() @Min(0) @Max(10_000_000) frame?: number
  @IsArray() @ArrayMinSize(1) @ArrayUnique() @IsIn(carriedStations, { each: true }) stations!: CarriedStation[]
  /** The corrections are solved anew on this shot's own pixels. */
  @IsBoolean() solve!: boolean
}

export class HeadMove {
  /** The revision the mover believes to be the present one. */
  @IsUUID() expectedId!: string
}

export class NewRender {
  @IsUUID() revisionId!: string
}

export class LeadFrame {
  @IsInt() @Min(0) @Max(10_000_000) leadFrame!: number
}

const mostShots = 5000

export class RateOf {
  @IsInt() @Min(1) @Max(1_000_000) numerator!: number
  @IsInt() @Min(1) @Max(100_000) denominator!: number
}

/** Files that were uploaded, or one that lies in the server's media folder, to become shots. */
export class NewImport {
  /** Ids of finished uploads: one film or still each, or all pictures of one sequence in order. */
  @ValidateIf((r: NewImport) => r.path === undefined)
  @Listed({ min: 1, max: 200_000 })
  @Matches(/^[0-9a-f]{32}$/, { each: true })
  uploads?: string[]
  /** A path below the media folder. */
  @IsOptional() @IsString() @Length(1, 1000) path?: string
  /** The medium, by its hash, whose linked original lies at the path now; no shot is made. */
  @IsOptional() @Matches(/^[0-9a-f]{64}$/) again?: string
  /** The uploads (or the files of the folder) are one sequence. */
  @IsBoolean() pictures!: boolean
  @IsOptional() @IsString() @Length(1, 200) @Matches(oneLine) name?: string
  /** Frames per second of a sequence. */
  @IsOptional() @PartOf(() => RateOf) rate?: RateOf
  /** On the reel its shot comes before those of imports with a larger one, whichever is done first. */
  @IsOptional() @IsInt() @Min(0) @Max(Number.MAX_SAFE_INTEGER) order?: number
}

class SceneTarget {
  /** A scene that is there, or the name of one to make; neither takes the shots out of their scene. */
  @IsOptional() @IsUUID() id?: string
  @IsOptional() @IsString() @Length(1, 80) @Matches(oneLine) name?: string
}

class ReadChange {
  /** One that ships, or one of the user's own. */
  @IsString() @Length(1, 80) encodingId!: string
  /** Left out, each shot keeps the range it is read by. */
  @IsOptional() @IsIn(['full', 'legal']) range?: 'full' | 'legal'
}

const standardIdPattern = /^[A-Za-z0-9-]{1,60}$/

/** A change of what shots have of their project, or of one scene; null inherits, what is left out stays. */
export class DefaultsChange {
  @ValidateIf((d: DefaultsChange) => d.sceneId !== null) @IsUUID() sceneId!: string | null
  @IsOptional() @IsIn(displays.map((d) => d.id)) displayId?: string | null
  @IsOptional() @IsIn(defaultRenderings) rendering?: DefaultRendering | null
  @IsOptional() @IsString() @Matches(standardIdPattern) standardId?: string | null
}

/** One change for many shots. */
export class ShotChanges {
  @Listed({ min: 1, max: mostShots })
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  shotIds!: string[]
  @IsOptional() @PartOf(() => SceneTarget) scene?: SceneTarget
  @IsOptional() @IsIn(['new', 'corrected', 'matched', 'finished']) state?: 'new' | 'corrected' | 'matched' | 'finished'
  @IsOptional() @IsString() @Length(0, 80) @Matches(oneLine) cameraName?: string
  /** Their own house standard; null takes that of their scene or project again. */
  @IsOptional() @IsString() @Matches(standardIdPattern) standardId?: string | null
  @IsOptional() @PartOf(() => ReadChange) read?: ReadChange
  /** The shots are meant to be seen as their files look: it is asked no more. */
  @IsOptional() @IsBoolean() staysAsItLooks?: boolean
  /** The rate to play at; null takes it back to the rate it was shot at. */
  @ValidateIf((r: ShotChanges) => r.played !== undefined && r.played !== null)
  @PartOf(() => RateOf)
  played?: RateOf | null
}

/** True for the ids of encodings that ship; users' own come with their definition and are set on the Bench. */
export const isShippedEncoding = (id: string): boolean => isEncodingId(id)

/** Three numbers, each within bounds. */
const EachWithin = (least: number, most: number): PropertyDecorator =>
  applyAll(
    IsArray(),
    ArrayMinSize(3),
    ArrayMaxSize(3),
    IsNumber({}, { each: true }),
    Min(least, { each: true }),
    Max(most, { each: true }),
  )
const applyAll =
  (...decorators: readonly PropertyDecorator[]): PropertyDecorator =>
  (target, key) => {
    for (const decorate of decorators) decorate(target, key)
  }

/** A colour decision as three slopes, offsets and powers, and a saturation (ASC CDL v1.2). */
class Correction {
  @EachWithin(0, 10) slope!: [number, number, number]
  @EachWithin(-2, 2) offset!: [number, number, number]
  @EachWithin(0.05, 10) power!: [number, number, number]
  @IsNumber() @Min(0) @Max(4) saturation!: number
}

class Piece {
  @IsInt() @Min(0) @Max(10_000_000) first!: number
  @IsInt() @Min(1) @Max(10_000_000) count!: number
  @IsOptional() @IsString() @Length(1, 200) @Matches(oneLine) name?: string
  /** The correction that came with it in an edit list: it goes into the piece's own step. */
  @IsOptional() @PartOf(() => Correction) cdl?: Correction
}

/** A shot becomes these pieces of its medium, in order. */
export class CutShot {
  @ListOf(() => Piece, { min: 1, max: mostShots })
  pieces!: Piece[]
}

/** Neighbouring pieces of one medium become one shot. */
export class JoinShots {
  @Listed({ min: 2, max: mostShots })
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  shotIds!: string[]
}

/** Shots to a place on the reel: before another shot, or to its end. */
export class MoveShots {
  @Listed({ min: 1, max: mostShots })
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  shotIds!: string[]
  @IsOptional() @IsUUID() beforeId?: string
}

/** Shots that are corrected together from now on. */
export class LinkShots {
  @Listed({ min: 2, max: mostShots })
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  shotIds!: string[]
}

export class UnlinkShots {
  @Listed({ min: 1, max: mostShots })
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  shotIds!: string[]
}

export class RemoveShots {
  @Listed({ min: 1, max: mostShots })
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  shotIds!: string[]
}
