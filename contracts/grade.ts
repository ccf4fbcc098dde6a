// The grade document as a contract: what may be stored as a revision.
import 'reflect-metadata'
import {
  Equals,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
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
import { isDisplayId, isEncodingId, isGamutId, ownEncodingId } from '@core/colour'
import {
  currentSchema,
  inheritedShow,
  isStepKindId,
  lutTakesSide,
  completedGrade,
  migrateGrade,
  parameterFault,
  showParameters,
  stepKindById,
  type GamutMethodId,
  type GradeDocument,
  type InheritedShow,
  type Parameter,
  type ShowMethodId,
  type ShowParameters,
  type Side,
  type StepParameters,
} from '@core/grade'
import type { CodeRange } from '@core/image'
import { checked, ContractError } from './check'
import { OwnEncoding } from './encodings'
import { idPattern, RegionContract, requireRegions, type RecipeRegionContract } from './regions'
import { ListOf, Listed, PartOf } from './parts'

const finite = { allowNaN: false, allowInfinity: false } as const
export const gradeLimits = { steps: 600, regions: 32, animation: 200, keyframes: 1000, nameLength: 80 } as const

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
    return stepParametersFault(object as RecipeStepContract) === null
  }
  defaultMessage({ object }: ValidationArguments): string {
    return stepParametersFault(object as RecipeStepContract) ?? 'The parameters do not fit the step'
  }
}

function stepParametersFault({ kind, params }: RecipeStepContract): string | null {
  if (!isStepKindId(kind)) return 'params must be an object that fits the step kind'
  return parametersFault(stepKindById(kind).parameters, params, `A step of kind "${kind}"`)
}

function parametersFault(declared: Readonly<Record<string, Parameter>>, params: unknown, what: string): string | null {
  if (typeof params !== 'object' || params === null) return 'params must be an object that fits the step kind'
  const stranger = Object.keys(params).find((key) => !Object.hasOwn(declared, key))
  if (stranger !== undefined) return `${what} has no parameter "${stranger.slice(0, 40)}".`
  for (const [key, parameter] of Object.entries(declared)) {
    const fault = parameterFault(parameter, (params as StepParameters)[key])
    if (fault) return fault
  }
  return null
}

@ValidatorConstraint({ name: 'showParameters' })
class ShowNumbers implements ValidatorConstraintInterface {
  validate(value: unknown): boolean {
    return parametersFault(showParameters, value, 'Show') === null
  }
  defaultMessage({ value }: ValidationArguments): string {
    return parametersFault(showParameters, value, 'Show') ?? 'The numbers do not fit Show'
  }
}

const contentHash = /^[0-9a-f]{64}$/

class ReadContract {
  @IsIn(['formula', 'lut']) method!: 'formula' | 'lut'
  @Validate(KnownId, [(id: unknown) => isEncodingId(id) || (typeof id === 'string' && ownEncodingId.test(id))])
  encodingId!: string
  @Validate(KnownId, [isGamutId]) gamutId!: string
  @IsIn(['full', 'legal']) range!: CodeRange
  @ValidateIf((read: ReadContract) => read.lutHash !== null) @Matches(contentHash) lutHash!: string | null
  @IsNumber(finite) @Min(0) @Max(1) lutStrength!: number
  @IsOptional() @PartOf(() => OwnEncoding) own?: OwnEncoding
  @IsOptional() @IsNumber(finite) @Min(-0.5) @Max(1.5) brightestSignal?: number
}

class ShowContract {
  @IsIn(['straight', 'rendered', 'rolloff', 'print', 'lut']) method!: ShowMethodId
  @Validate(KnownId, [isDisplayId]) displayId!: string
  @ValidateIf((show: ShowContract) => show.lutHash !== null) @Matches(contentHash) lutHash!: string | null
  @Validate(KnownId, [(id: unknown) => id === lutTakesSide || isEncodingId(id)]) lutTakes!: string
  @IsNumber(finite) @Min(0) @Max(1) lutStrength!: number
  @IsIn(['clip', 'compress']) gamutMethod!: GamutMethodId
  @Validate(ShowNumbers) params!: ShowParameters
  @IsOptional()
  @Listed({ max: inheritedShow.length })
  @IsIn(inheritedShow, { each: true })
  own?: InheritedShow[]
}

/** A step as a recipe keeps it. */
export class RecipeStepContract {
  @Validate(KnownId, [isStepKindId]) kind!: string
  @IsString() @Length(1, gradeLimits.nameLength) name!: string
  @IsNumber(finite) @Min(0) @Max(1) strength!: number
  @IsIn(['scene', 'display']) side!: Side
  @IsObject() @Validate(MatchesKind) params!: StepParameters
  @IsOptional() @Matches(idPattern) regionId?: string
}

class StepContract extends RecipeStepContract {
  @Matches(idPattern) id!: string
  @IsBoolean() enabled!: boolean
  @IsOptional() @Matches(/^(own|[0-9a-f-]{36})$/) lookId?: string
}

class KeyframeContract {
  @IsInt() @Min(0) frame!: number
  @IsNumber(finite) value!: number
}

class KeyframesContract {
  @Matches(idPattern) stepId!: string
  @IsString() @Length(1, 40) key!: string
  @IsIn(['linear', 'smooth']) path!: 'linear' | 'smooth'
  @ListOf(() => KeyframeContract, { min: 1, max: gradeLimits.keyframes })
  keyframes!: KeyframeContract[]
}

export class GradeContract {
  @Equals(currentSchema) schema!: typeof currentSchema
  @IsIn(['scene', 'display']) working!: Side
  @PartOf(() => ReadContract) read!: ReadContract
  @ListOf(() => StepContract, { max: gradeLimits.steps })
  steps!: StepContract[]
  @ListOf(() => KeyframesContract, { max: gradeLimits.animation })
  animation!: KeyframesContract[]
  @ListOf(() => RegionContract, { max: gradeLimits.regions })
  regions!: RegionContract[]
  @PartOf(() => ShowContract) show!: ShowContract
}

/**
 * Checks a grade document: its shape, its values, and that its parts refer to each other. Documents of an earlier
 * schema are brought to the present one first. Throws ContractError.
 */
export function checkedGrade(data: unknown): GradeDocument {
  const present = migrateGrade(data)
  const grade = checked(GradeContract, present)
  const { encodingId, own } = grade.read
  if (!isEncodingId(encodingId) && own?.id !== encodingId)
    throw new ContractError(`The grade reads by "${encodingId}" but does not carry its definition.`, 'read.own')
  requireUnique(grade.steps, 'steps')
  requireCarried(grade)
  grade.animation.forEach((keyframes, i) => requireKeyframes(grade, keyframes, `animation.${i}`))
  return completedGrade(present as GradeDocument)
}

/** Regions are told apart, and steps that belong to one belong to one that is there and may carry them. */
export function requireCarried({
  steps,
  regions,
}: {
  readonly steps: readonly RecipeStepContract[]
  readonly regions: readonly RecipeRegionContract[]
}): void {
  requireUnique(regions, 'regions')
  requireRegions(regions)
  const there = new Set(regions.map((r) => r.id))
  steps.forEach((step, i) => {
    if (step.regionId === undefined) return
    if (!there.has(step.regionId))
      throw new ContractError(`The step "${step.name}" belongs to a region that is not there.`, `steps.${i}.regionId`)
    if (stepKindById(step.kind).inRegions === 'never')
      throw new ContractError(`A step of kind "${step.kind}" cannot be carried by a region.`, `steps.${i}.regionId`)
  })
}

/**
 * Keyframes are of a control that is there and is a number, once for each, in rising order, with values that the
 * control may have.
 */
function requireKeyframes(
  { steps, animation }: GradeContract,
  { stepId, key, keyframes }: KeyframesContract,
  field: string,
): void {
  const step = steps.find((s) => s.id === stepId)
  const parameter = step && stepKindById(step.kind).parameters[key]
  if (parameter?.type !== 'number')
    throw new ContractError(
      `Keyframes are for "${key.slice(0, 40)}", which is no number of a step that is there.`,
      field,
    )
  if (animation.filter((m) => m.stepId === stepId && m.key === key).length > 1)
    throw new ContractError(`${parameter.label} has two lists of keyframes.`, field)
  keyframes.forEach(({ frame, value }, i) => {
    const fault = parameterFault(parameter, value)
    if (fault) throw new ContractError(fault, `${field}.keyframes.${i}`)
    const before = keyframes[i - 1]
    if (before && frame <= before.frame)
      throw new ContractError('Keyframes must be in rising order.', `${field}.keyframes.${i}`)
  })
}

function requireUnique(items: readonly { id: string }[], field: string): void {
  if (new Set(items.map((i) => i.id)).size !== items.length)
    throw new ContractError(`Two of the ${field} have the same id.`, field)
}
