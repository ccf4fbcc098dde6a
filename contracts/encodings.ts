// Encodings of the user's own as contracts: what may be stored, sent, exported and imported.
import { oneLine } from '@core/names'
import 'reflect-metadata'
import {
  Equals,
  IsIn,
  IsNumber,
  IsString,
  Length,
  Matches,
  Validate,
  ValidateIf,
  ValidatorConstraint,
  type ValidationArguments,
  type ValidatorConstraintInterface,
} from 'class-validator'
import { curveOf, isGamutId, ownEncodingId, type CurveDefinition, type EncodingDefinition } from '@core/colour'
import { checked } from './check'
import { ListOf, PartOf } from './parts'

const finite = { allowNaN: false, allowInfinity: false } as const

class TablePair {
  @IsNumber(finite) code!: number
  @IsNumber(finite) linear!: number
}

class CurveContract {
  @IsIn(['lin-log', 'table']) family!: 'lin-log' | 'table'
  @ValidateIf(isLinLog) @IsNumber(finite) a!: number
  @ValidateIf(isLinLog) @IsNumber(finite) b!: number
  @ValidateIf(isLinLog) @IsNumber(finite) c!: number
  @ValidateIf(isLinLog) @IsNumber(finite) d!: number
  @ValidateIf((curve: CurveContract) => isLinLog(curve) && curve.e !== null) @IsNumber(finite) e!: number | null
  @ValidateIf((curve: CurveContract) => isLinLog(curve) && curve.f !== null) @IsNumber(finite) f!: number | null
  @ValidateIf(isLinLog) @IsNumber(finite) cut!: number
  @ValidateIf((curve: CurveContract) => curve.family === 'table')
  @ListOf(() => TablePair, { min: 2, max: 4096 })
  entries!: TablePair[]
}
function isLinLog(curve: CurveContract): boolean {
  return curve.family === 'lin-log'
}

@ValidatorConstraint({ name: 'risingCurve' })
class RisingCurve implements ValidatorConstraintInterface {
  validate(value: unknown): boolean {
    return curveFault(value) === null
  }
  defaultMessage({ value }: ValidationArguments): string {
    return curveFault(value) ?? 'The curve cannot be used'
  }
}

function curveFault(value: unknown): string | null {
  try {
    curveOf(value as CurveDefinition)
    return null
  } catch (error) {
    return error instanceof RangeError ? error.message : 'The curve is incomplete.'
  }
}

@ValidatorConstraint({ name: 'gamut' })
class KnownGamut implements ValidatorConstraintInterface {
  validate(value: unknown): boolean {
    return isGamutId(value)
  }
  defaultMessage(): string {
    return 'gamutId is not one that this program knows'
  }
}

export class OwnEncoding implements EncodingDefinition {
  @Matches(ownEncodingId) id!: string
  @IsString() @Length(1, 60) @Matches(oneLine) name!: string
  @Validate(KnownGamut) gamutId!: string
  @IsString() @Length(0, 200) @Matches(oneLine) source!: string
  @PartOf(() => CurveContract) @Validate(RisingCurve) curve!: CurveDefinition & CurveContract
}

/** A file of user encodings, as exported and imported. */
export class EncodingFile {
  @Equals('pale-meridian-encodings') kind!: 'pale-meridian-encodings'
  @Equals(1) version!: 1
  @ListOf(() => OwnEncoding, { min: 1, max: 200 })
  encodings!: OwnEncoding[]
}

/** Checks one definition. Throws ContractError. */
export function checkedEncoding(data: unknown): EncodingDefinition {
  checked(OwnEncoding, data)
  return data as EncodingDefinition
}
