// Controls that change along the clip: their values at marked frames, and the grade as it is at one frame.
import { framesAround, regionAt, settledRegion, type Region } from '../regions'
import type { GradeDocument, Marks } from './document'
import { setParameter } from './edits'

/** The value at a frame: between two marks along the path, beyond the first and the last held. */
export function valueAlong({ path, marks }: Marks, frame: number): number {
  const next = marks.findIndex((m) => m.frame >= frame)
  const b = marks[next]
  const a = marks[next - 1]
  if (!b) return marks.at(-1)?.value ?? 0
  if (!a || b.frame === frame) return b.value
  const share = (frame - a.frame) / (b.frame - a.frame)
  // Smooth: at rest at both marks (the cubic 3t² − 2t³).
  return a.value + (b.value - a.value) * (path === 'smooth' ? share * share * (3 - 2 * share) : share)
}

const follows = (region: Region): boolean =>
  region.pieces.some(({ source }) => source.kind === 'shape' && source.motion !== undefined)

const kept = new WeakMap<GradeDocument, Map<number, GradeDocument>>()

/**
 * The grade as it is at a frame of the medium: a document without marks, its regions where they lie then. The same
 * object for the same document and frame, and the document itself where nothing changes along the clip.
 */
export function gradeAt(grade: GradeDocument, frame: number): GradeDocument {
  if (grade.along.length === 0 && !grade.regions.some(follows)) return grade
  const frames = kept.get(grade) ?? new Map<number, GradeDocument>()
  kept.set(grade, frames)
  const known =
    frames.get(frame) ??
    grade.along.reduce<GradeDocument>(
      (next, marks) => setParameter(next, marks.stepId, marks.key, valueAlong(marks, frame)),
      { ...grade, along: [], regions: grade.regions.map((r) => regionAt(r, frame)) },
    )
  frames.set(frame, known)
  return known
}

/** As gradeAt, as a grade that may be kept: regions stay where they lie at the frame. */
export const restingAt = (grade: GradeDocument, frame: number): GradeDocument => ({
  ...gradeAt(grade, frame),
  regions: grade.regions.map((r) => settledRegion(r, frame)),
})

/**
 * The frames about one that a grade looks at, by how many away they are: for keys that are steadied. Only those between
 * `first` and `last`, the shot's own.
 */
export function framesLookedAt(grade: GradeDocument, frame: number, first: number, last: number): readonly number[] {
  const reach = Math.max(0, ...grade.regions.filter((r) => r.enabled).map((r) => framesAround(r, grade.regions)))
  return Array.from({ length: reach * 2 }, (_, i) => (i < reach ? i - reach : i - reach + 1)).filter(
    (away) => frame + away >= first && frame + away <= last,
  )
}

export const marksOf = ({ along }: GradeDocument, stepId: string, key: string): Marks | null =>
  along.find((m) => m.stepId === stepId && m.key === key) ?? null

function replaceMarks(grade: GradeDocument, marks: Marks): GradeDocument {
  const sorted = { ...marks, marks: [...marks.marks].sort((a, b) => a.frame - b.frame) }
  return {
    ...grade,
    along: marksOf(grade, marks.stepId, marks.key)
      ? grade.along.map((m) => (m.stepId === marks.stepId && m.key === marks.key ? sorted : m))
      : [...grade.along, sorted],
  }
}

/** Marks a frame: the control keeps the value there that it has now. */
export function addMark(grade: GradeDocument, stepId: string, key: string, frame: number): GradeDocument {
  const value = gradeAt(grade, frame).steps.find((s) => s.id === stepId)?.params[key]
  const known = marksOf(grade, stepId, key)
  if (typeof value !== 'number' || known?.marks.some((m) => m.frame === frame)) return grade
  return replaceMarks(
    grade,
    known
      ? { ...known, marks: [...known.marks, { frame, value }] }
      : { stepId, key, path: 'smooth', marks: [{ frame, value }] },
  )
}

/** Takes a mark away; with the last one the control is the same along the clip again, as it was there. */
export function removeMark(grade: GradeDocument, stepId: string, key: string, frame: number): GradeDocument {
  const known = marksOf(grade, stepId, key)
  const gone = known?.marks.find((m) => m.frame === frame)
  if (!known || !gone) return grade
  if (known.marks.length > 1) return replaceMarks(grade, { ...known, marks: known.marks.filter((m) => m !== gone) })
  return setParameter({ ...grade, along: grade.along.filter((m) => m !== known) }, stepId, key, gone.value)
}

export function setPath(grade: GradeDocument, stepId: string, key: string, path: Marks['path']): GradeDocument {
  const known = marksOf(grade, stepId, key)
  return known && known.path !== path ? replaceMarks(grade, { ...known, path }) : grade
}

/** A control as set by a hand at a frame: on a mark that mark is moved; between marks all of them are, by as much. */
export function setParameterAt(
  grade: GradeDocument,
  stepId: string,
  key: string,
  value: number,
  frame: number,
  bounds: { readonly min: number; readonly max: number } = { min: -Infinity, max: Infinity },
): GradeDocument {
  const known = marksOf(grade, stepId, key)
  if (!known) return setParameter(grade, stepId, key, value)
  const by = value - valueAlong(known, frame)
  const here = known.marks.some((m) => m.frame === frame)
  if (by === 0) return grade
  const moved = (v: number): number => Math.min(bounds.max, Math.max(bounds.min, Math.round((v + by) * 1e6) / 1e6))
  return replaceMarks(grade, {
    ...known,
    marks: known.marks.map((m) => {
      if (here) return m.frame === frame ? { frame, value } : m
      return { frame: m.frame, value: moved(m.value) }
    }),
  })
}
