// Recipes as contracts.
import 'reflect-metadata'
import { Type } from 'class-transformer'
import { ArrayMaxSize, ArrayMinSize, IsArray, IsString, Length, Matches, ValidateNested } from 'class-validator'
import { RecipeStepContract } from './grade'

export class NewRecipe {
  @IsString() @Length(1, 60) @Matches(/^[^\p{Cc}]*$/u) name!: string
  @IsString() @Length(0, 300) @Matches(/^[^\p{Cc}]*$/u) note!: string
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => RecipeStepContract) steps!: RecipeStepContract[]
}
