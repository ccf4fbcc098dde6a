// Recipes as contracts.
import 'reflect-metadata'
import { IsBoolean, IsNumber, IsString, IsUUID, Length, Matches, Max, Min, ValidateIf } from 'class-validator'
import type { Recipe } from '@core/grade'
import { checked } from './check'
import { gradeLimits, RecipeStepContract, requireCarried } from './grade'
import { RecipeRegionContract } from './regions'
import { ListOf } from './parts'

export class NewRecipe {
  @IsString() @Length(1, 60) @Matches(/^[^\p{Cc}]*$/u) name!: string
  @IsString() @Length(0, 300) @Matches(/^[^\p{Cc}]*$/u) note!: string
  @ListOf(() => RecipeStepContract, { min: 1, max: 200 })
  steps!: RecipeStepContract[]
  @ListOf(() => RecipeRegionContract, { max: gradeLimits.regions })
  regions!: RecipeRegionContract[]
}

/** A look to be shared. */
export class NewLook {
  @IsString() @Length(1, 60) @Matches(/^[^\p{Cc}]*$/u) name!: string
  @ListOf(() => RecipeStepContract, { min: 1, max: 60 })
  steps!: RecipeStepContract[]
}
export const checkedLook = (data: unknown): NewLook => checked(NewLook, data)

/** Where a look goes: on a scene, or on the whole project without one; no look takes it off. */
export class LookPlace {
  @ValidateIf((p: LookPlace) => p.sceneId !== null) @IsUUID() sceneId!: string | null
  @ValidateIf((p: LookPlace) => p.lookId !== null) @IsUUID() lookId!: string | null
  @IsNumber({ allowNaN: false, allowInfinity: false }) @Min(0) @Max(1) strength!: number
}

/** How much of its look one shot takes; detached, its steps become the shot's own. */
export class ShotLook {
  @IsNumber({ allowNaN: false, allowInfinity: false }) @Min(0) @Max(1) strength!: number
  @IsBoolean() detached!: boolean
}

/** Reference pictures of a scene: small ones, as they only stand beside the picture. */
export const scenePictureLimits = { perScene: 6, maxSide: 1024, maxBytes: 4 * 1024 * 1024 } as const

/** What a scene should feel like. */
export class SceneIntent {
  @IsString() @Length(0, 400) @Matches(/^[^\p{Cc}]*$/u) intent!: string
}

/** Checks a recipe: its shape, its values, and that its parts refer to each other. Throws ContractError. */
export function checkedRecipe(data: unknown): Omit<Recipe, 'id'> {
  const recipe = checked(NewRecipe, data)
  requireCarried(recipe)
  return data as Omit<Recipe, 'id'>
}
