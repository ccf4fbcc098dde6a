// What two revisions of a shot have that the other has not.

export interface Compared {
  readonly a: string
  readonly b: string
  readonly words: readonly string[]
}
