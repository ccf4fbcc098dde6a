// Swatch pairs as a contract: places of another picture, by the colour they have there, and of a shot.
import 'reflect-metadata'
import { IsInt, IsNumber, Max, Min } from 'class-validator'
import { Listed, ListOf, PartOf } from './parts'
import { AreaContract } from './readings'

const finite = { allowNaN: false, allowInfinity: false } as const
export const mostPairs = 12

class PairContract {
  @IsInt() @Min(0) @Max(999) id!: number
  /** Display signal, 0..1: red, green, blue. */
  @Listed({ min: 3, max: 3 })
  @IsNumber(finite, { each: true })
  @Min(0, { each: true })
  @Max(1, { each: true })
  seen!: [number, number, number]
  @PartOf(() => AreaContract) area!: AreaContract
}
export class SwatchPairs {
  @IsInt() @Min(0) @Max(10_000_000) frame!: number
  @ListOf(() => PairContract, { min: 1, max: mostPairs }) pairs!: PairContract[]
}
