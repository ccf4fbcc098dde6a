// What the browser may ask of the server, as contracts.
import 'reflect-metadata'
import { IsInt, IsObject, IsString, IsUUID, Length, Matches, Max, Min } from 'class-validator'

// Printable text on one line: no control characters.
const oneLine = /^[^\p{Cc}]*$/u

export class NewProject {
  @IsString() @Length(1, 80) @Matches(oneLine) name!: string
}

export class NewRevision {
  /** The revision the edit was made on; when it is no longer the shot's present one, the answer is 409. */
  @IsUUID() parentId!: string
  @IsString() @Length(1, 200) @Matches(oneLine) summary!: string
  /** A grade document; checked by checkedGrade. */
  @IsObject() grade!: object
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
