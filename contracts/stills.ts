// Stills of a project and notes on moments, as contracts.
import { oneLine } from '@core/names'
import 'reflect-metadata'
import { IsInt, IsOptional, IsString, IsUUID, Length, Matches, Max, Min } from 'class-validator'

export const stillLimits = { perProject: 500, maxSide: 1920, maxBytes: 12 * 1024 * 1024 } as const
const mostFrame = 10_000_000
const printable = /^[^\p{Cc}]*$/u

/** A frame of a shot as it is graded now. */
export class NewStill {
  @IsUUID() shotId!: string
  @IsInt() @Min(0) @Max(mostFrame) frame!: number
  @IsString() @Length(1, 80) @Matches(oneLine) name!: string
}
export class StillChange {
  @IsOptional() @IsString() @Length(1, 80) @Matches(oneLine) name?: string
  @IsOptional() @IsString() @Length(0, 400) @Matches(printable) notes?: string
}
/** What is said of a moment. */
export class NewMomentNote {
  @IsInt() @Min(0) @Max(mostFrame) frame!: number
  @IsString() @Length(1, 300) @Matches(printable) words!: string
}
