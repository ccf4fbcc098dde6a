// The grade document as a contract: what may be stored as a revision.
import 'reflect-metadata'
import { Type } from 'class-transformer'
import { ArrayMaxSize, Equals, IsArray, IsBoolean, IsIn, IsNumber, IsObject, IsOptional, IsString, Length, Matches, Max, Min, Validate, ValidateNested, ValidatorConstraint, type ValidationArguments, type ValidatorConstraintInterface } from 'class-validator'
import { currentSchema, isDisplayId, isEncodingId, isGamutId, isStepKindId, parameterFault, regionBounds, stepKindById, type CodeRange, type GradeDocument, type Side, type StepParameters } from '@core/index'
import { checked, ContractError } from './check'

const idPattern = /^[A-Za-z0-9_-]{1,40}$/
const finite = { allowNaN: false, allowInfinity: false } as const
export const gradeLimits = { steps: 200, regions: 32, nameLength: 80 } as const

@ValidatorConstraint({ name: 'known' })
class KnownId implements ValidatorConstraintInterface {
  validate(value: unknown, { constraints }: ValidationArguments): boolean {
    const [known] = constraints as [(id: unknown) => boolean]
    return known(value)
  }
  defaultMessage({ property }: ValidationArguments): string {
    return `${property} is not one that this program knows`
  }
}

@ValidatorConstraint({ name: 'stepParameters' })
class MatchesKind implements ValidatorConstraintInterface {
  validate(_: unknown, { object }: ValidationArguments): boolean {
    return stepParametersFault(object as StepContract) === null
  }
  defaultMessage({ object }: ValidationArguments): string {
    return stepParametersFault(object as StepContract) ?? 'The parameters do not fit the step'
  }
}

function stepParametersFault({ kind, params }: StepContract): string | null {
  if (!isStepKindId(kind) || typeof params !== 'object' || params === null) return 'params must be an object that fits the step kind'
  const declared = stepKindById(kind).parameters
  const stranger = Object.keys(params).find((key) => !Object.hasOwn(declared, key))
  if (stranger !== undefined) return `A step of kind "${kind}" has no parameter "${stranger.slice(0, 40)}".`
  for (const [key, parameter] of Object.entries(declared)) {
    const fault = parameterFault(parameter, params[key])
    if (fault) return fault
  }
  return null
}

class ReadContract {
  @Validate(KnownId, [isEncodingId]) encodingId!: string
  @Validate(KnownId, [isGamutId]) gamutId!: string
  @IsIn(['full', 'legal']) range!: CodeRange
}

class ShowContract {
  @IsIn(['straight']) method!: 'straight'
  @Validate(KnownId, [isDisplayId]) displayId!: string
}

class EllipseContract {
  @Equals('ellipse') kind!: 'ellipse'
  @IsNumber(finite) @Min(regionBounds.centre.min) @Max(regionBounds.centre.max) centreX!: number
  @IsNumber(finite) @Min(regionBounds.centre.min) @Max(regionBounds.centre.max) centreY!: number
  @IsNumber(finite) @Min(regionBounds.radius.min) @Max(regionBounds.radius.max) radiusX!: number
  @IsNumber(finite) @Min(regionBounds.radius.min) @Max(regionBounds.radius.max) radiusY!: number
  @IsNumber(finite) @Min(regionBounds.rotationDegrees.min) @Max(regionBounds.rotationDegrees.max) rotationDegrees!: number
}

class RegionContract {
  @Matches(idPattern) id!: string
  @IsString() @Length(1, gradeLimits.nameLength) name!: string
  @IsBoolean() enabled!: boolean
  @IsObject() @ValidateNested() @Type(() => EllipseContract) shape!: EllipseContract
  @IsNumber(finite) @Min(regionBounds.feather.min) @Max(regionBounds.feather.max) feather!: number
  @IsBoolean() invert!: boolean
}

class StepContract {
  @Matches(idPattern) id!: string
  @Validate(KnownId, [isStepKindId]) kind!: string
  @IsString() @Length(1, gradeLimits.nameLength) name!: string
  @IsBoolean() enabled!: boolean
  @IsNumber(finite) @Min(0) @Max(1) strength!: number
  @IsIn(['scene', 'display']) side!: Side
  @IsOptional() @Matches(idPattern) regionId?: string
  @IsObject() @Validate(MatchesKind) params!: StepParameters
}

export class GradeContract {
  @Equals(currentSchema) schema!: typeof currentSchema
  @IsObject() @ValidateNested() @Type(() => ReadContract) read!: ReadContract
  @IsArray() @ArrayMaxSize(gradeLimits.steps) @ValidateNested({ each: true }) @Type(() => StepContract) steps!: StepContract[]
  @IsArray() @ArrayMaxSize(gradeLimits.regions) @ValidateNested({ each: true }) @Type(() => RegionContract) regions!: RegionContract[]
  @IsObject() @ValidateNested() @Type(() => ShowContract) show!: ShowContract
}

/** Checks a grade document: its shape, its values, and that its parts refer to each other. Throws ContractError. */
export function checkedGrade(data: unknown): GradeDocument {
  const grade = checked(GradeContract, data)
  requireUnique(grade.steps, 'steps')
  requireUnique(grade.regions, 'regions')
  const regions = new Set(grade.regions.map((r) => r.id))
  grade.steps.forEach((step, i) => {
    if (step.regionId === undefined) return
    if (!regions.has(step.regionId)) throw new ContractError(`The step "${step.name}" belongs to a region that is not there.`, `steps.${i}.regionId`)
    if (!stepKindById(step.kind).regional) throw new ContractError(`A step of kind "${step.kind}" cannot be carried by a region.`, `steps.${i}.regionId`)
  })
  return data as GradeDocument
}

function requireUnique(items: readonly { id: string }[], field: string): void {
  if (new Set(items.map((i) => i.id)).size !== items.length) throw new ContractError(`Two of the ${field} have the same id.`, field)
}
