// House standards of one's own, subjects, picks and waivers as contracts.
import { oneLine } from '@core/names'
import 'reflect-metadata'
import {
  ArrayUnique,
  Equals,
  IsBoolean,
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
  Validate,
  ValidateIf,
  ValidatorConstraint,
  type ValidationArguments,
  type ValidatorConstraintInterface,
} from 'class-validator'
import { isReadingId, readingKind, type HouseStandard, type Targets } from '@core/readings'
import { checked } from './check'
import { ListOf, PartOf } from './parts'

const finite = { allowNaN: false, allowInfinity: false } as const
export const ownStandardId = /^own-[A-Za-z0-9-]{1,40}$/

/** What is wrong with a set of targets, in a sentence; null when nothing is. */
export function targetsFault(value: unknown): string | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return 'targets must be an object of readings.'
  for (const [id, target] of Object.entries(value as Record<string, unknown>)) {
    if (!isReadingId(id) || !readingKind(id).targeted)
      return `"${id.slice(0, 40)}" is not a reading that can have a target.`
    const { low, high, tolerance, ...more } = (target ?? {}) as Record<string, unknown>
    if (Object.keys(more).length > 0)
      return `${id} has a field "${Object.keys(more)[0]?.slice(0, 40) ?? ''}" that is not known.`
    for (const [name, n] of [
      ['low', low],
      ['high', high],
      ['tolerance', tolerance],
    ] as const)
      if (typeof n !== 'number' || !Number.isFinite(n) || Math.abs(n) > 1000) return `${id}: ${name} must be a number.`
    if ((low as number) > (high as number)) return `${id}: low must not be over high.`
    if ((tolerance as number) < 0) return `${id}: tolerance must not be negative.`
  }
  return null
}

@ValidatorConstraint({ name: 'targets' })
class SoundTargets implements ValidatorConstraintInterface {
  validate(value: unknown): boolean {
    return targetsFault(value) === null
  }
  defaultMessage({ value }: ValidationArguments): string {
    return targetsFault(value) ?? 'The targets cannot be used'
  }
}

export class OwnStandard {
  @Matches(ownStandardId, { message: 'id must begin with own- and hold letters, digits and hyphens' }) id!: string
  @IsString() @Length(1, 60) @Matches(oneLine) name!: string
  @IsString() @Length(0, 200) @Matches(oneLine) tip!: string
  @IsObject() @Validate(SoundTargets) targets!: Targets
}

/** A file of standards, as exported and imported. */
export class StandardFile {
  @Equals('pale-meridian-standards') kind!: 'pale-meridian-standards'
  @Equals(1) version!: 1
  @ArrayUnique((s: OwnStandard) => s.id)
  @ListOf(() => OwnStandard, { min: 1, max: 100 })
  standards!: OwnStandard[]
}

/** One standard, bare or alone in a file of standards. Throws ContractError. */
export function checkedStandard(data: unknown): HouseStandard {
  const first =
    typeof data === 'object' && data !== null && 'kind' in data ? checked(StandardFile, data).standards[0] : null
  return first ?? checked(OwnStandard, data)
}

/** A part of the frame, in shares of it. */
export class AreaContract {
  @IsNumber(finite) @Min(0) @Max(1) left!: number
  @IsNumber(finite) @Min(0) @Max(1) top!: number
  @IsNumber(finite) @Min(0) @Max(1) right!: number
  @IsNumber(finite) @Min(0) @Max(1) bottom!: number
}

/** Where in a shot something lies. */
export class PickedArea {
  @IsInt() @Min(0) @Max(10_000_000) frame!: number
  @PartOf(() => AreaContract) area!: AreaContract
}

class CardContract {
  @IsNumber(finite) @Min(0) @Max(1) luma!: number
  @IsNumber(finite) @Min(0) @Max(2) chroma!: number
  @IsNumber(finite) @Min(0) @Max(360) hueDegrees!: number
}

/** A subject sampled in a shot; sampled again under its id. */
export class NewSubject {
  @IsString() @Length(1, 60) @Matches(oneLine) name!: string
  @IsUUID() shotId!: string
  @IsInt() @Min(0) @Max(10_000_000) frame!: number
  @PartOf(() => AreaContract) area!: AreaContract
  @PartOf(() => CardContract) card!: CardContract
}

@ValidatorConstraint({ name: 'reading' })
class KnownReading implements ValidatorConstraintInterface {
  validate(value: unknown): boolean {
    return isReadingId(value)
  }
  defaultMessage(): string {
    return 'reading is not one that this program knows'
  }
}

/** A reading waived for a shot with a reason, or taken up again. */
export class NewWaiver {
  @Validate(KnownReading) reading!: string
  /** The subject's name, for readings of a subject. */
  @IsOptional() @IsString() @Length(0, 60) @Matches(oneLine) subject?: string
  @IsBoolean() waived!: boolean
  @ValidateIf((w: NewWaiver) => w.waived || w.reason !== undefined)
  @IsString()
  @Length(1, 300)
  @Matches(oneLine)
  reason?: string
}
