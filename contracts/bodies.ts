// Request bodies that may be large, by name, each with its check: a thread other than the server's own can be asked.
import type { GradeDocument } from '@core/grade'
import { checked } from './check'
import { checkedEncoding, EncodingFile } from './encodings'
import { checkedGrade } from './grade'
import { StandardFile } from './readings'
import { checkedLook, checkedRecipe } from './recipes'
import {
  CutShot,
  JoinShots,
  LinkShots,
  MoveShots,
  NewFork,
  NewImport,
  NewRevision,
  RemoveShots,
  ShotChanges,
  UnlinkShots,
} from './requests'

/** A request that carries a grade; the grade is brought to the present schema. */
const withGrade = <T extends { readonly grade: object }>(body: T): Omit<T, 'grade'> & { grade: GradeDocument } => ({
  ...body,
  grade: checkedGrade(body.grade),
})

export const largeBodies = {
  revision: (data: unknown) => withGrade(checked(NewRevision, data)),
  fork: (data: unknown) => withGrade(checked(NewFork, data)),
  encoding: checkedEncoding,
  encodings: (data: unknown) => checked(EncodingFile, data),
  standards: (data: unknown) => checked(StandardFile, data),
  recipe: checkedRecipe,
  look: checkedLook,
  imports: (data: unknown) => checked(NewImport, data),
  shotChanges: (data: unknown) => checked(ShotChanges, data),
  linkShots: (data: unknown) => checked(LinkShots, data),
  unlinkShots: (data: unknown) => checked(UnlinkShots, data),
  cutShot: (data: unknown) => checked(CutShot, data),
  joinShots: (data: unknown) => checked(JoinShots, data),
  moveShots: (data: unknown) => checked(MoveShots, data),
  removeShots: (data: unknown) => checked(RemoveShots, data),
}
export type LargeBody = keyof typeof largeBodies
export type CheckedBody<K extends LargeBody> = ReturnType<(typeof largeBodies)[K]>

/** Longer texts are checked on another thread. */
export const mostOnOwnThread = 64 * 1024
