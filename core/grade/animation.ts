// Controls that change along the clip: their values at keyframes, and the grade as it is at one frame.
import { framesAround, regionAt, settledRegion, type Region } from '../regions'
import type { GradeDocument, Keyframes } from './document'
import { setParameter } from './edits'

/** The value at a frame: between two keyframes along the path, beyond the first and the last held. */
export function valueAt({ path, keyframes }: Keyframes, frame: number): number {
  const next = keyframes.findIndex((m) => m.frame >= frame)
  const b = keyframes[next]
  const a = keyframes[next - 1]
  if (!b) return keyframes.at(-1)?.value ?? 0
  if (!a || b.frame === frame) return b.value
  const share = (frame - a.frame) / (b.frame - a.frame)
  // Smooth: at rest at both keyframes (the cubic 3t² − 2t³).
  return a.value + (b.value - a.value) * (path === 'smooth' ? share * share * (3 - 2 * share) : share)
}

const follows = (region: Region): boolean =>
  region.components.some(({ source }) => source.kind === 'shape' && source.motion !== undefined)

const kept = new WeakMap<GradeDocument, Map<number, GradeDocument>>()

/**
 * The grade as it is at a frame of the medium: a document without keyframes, its regions where they lie then. The same
 * object for the same document and frame, and the document itself where nothing changes along the clip.
 */
export function gradeAt(grade: GradeDocument, frame: number): GradeDocument {
  if (grade.animation.length === 0 && !grade.regions.some(follows)) return grade
  const frames = kept.get(grade) ?? new Map<number, GradeDocument>()
  kept.set(grade, frames)
  const known =
    frames.get(frame) ??
    grade.animation.reduce<GradeDocument>(
      (next, keyframes) => setParameter(next, keyframes.stepId, keyframes.key, valueAt(keyframes, frame)),
      { ...grade, animation: [], regions: grade.regions.map((r) => regionAt(r, frame)) },
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
export function neighbourFrames(grade: GradeDocument, frame: number, first: number, last: number): readonly number[] {
  const reach = Math.max(0, ...grade.regions.filter((r) => r.enabled).map((r) => framesAround(r, grade.regions)))
  return Array.from({ length: reach * 2 }, (_, i) => (i < reach ? i - reach : i - reach + 1)).filter(
    (away) => frame + away >= first && frame + away <= last,
  )
}

export const keyframesOf = ({ animation }: GradeDocument, stepId: string, key: string): Keyframes | null =>
  animation.find((m) => m.stepId === stepId && m.key === key) ?? null

/** A control's keyframes, in place of those it had. */
export function setKeyframes(grade: GradeDocument, keyframes: Keyframes): GradeDocument {
  const sorted = { ...keyframes, keyframes: [...keyframes.keyframes].sort((a, b) => a.frame - b.frame) }
  return {
    ...grade,
    animation: keyframesOf(grade, keyframes.stepId, keyframes.key)
      ? grade.animation.map((m) => (m.stepId === keyframes.stepId && m.key === keyframes.key ? sorted : m))
      : [...grade.animation, sorted],
  }
}

/** Adds a keyframe: the control keeps the value there that it has now. */
export function addKeyframe(grade: GradeDocument, stepId: string, key: string, frame: number): GradeDocument {
  const value = gradeAt(grade, frame).steps.find((s) => s.id === stepId)?.params[key]
  const known = keyframesOf(grade, stepId, key)
  if (typeof value !== 'number' || known?.keyframes.some((m) => m.frame === frame)) return grade
  return setKeyframes(
    grade,
    known
      ? { ...known, keyframes: [...known.keyframes, { frame, value }] }
      : { stepId, key, path: 'smooth', keyframes: [{ frame, value }] },
  )
}

/** Takes a keyframe away; with the last one the control is the same along the clip again, as it was there. */
export function removeKeyframe(grade: GradeDocument, stepId: string, key: string, frame: number): GradeDocument {
  const known = keyframesOf(grade, stepId, key)
  const gone = known?.keyframes.find((m) => m.frame === frame)
  if (!known || !gone) return grade
  if (known.keyframes.length > 1)
    return setKeyframes(grade, { ...known, keyframes: known.keyframes.filter((m) => m !== gone) })
  return setParameter({ ...grade, animation: grade.animation.filter((m) => m !== known) }, stepId, key, gone.value)
}

export function setPath(grade: GradeDocument, stepId: string, key: string, path: Keyframes['path']): GradeDocument {
  const known = keyframesOf(grade, stepId, key)
  return known && known.path !== path ? setKeyframes(grade, { ...known, path }) : grade
}

/** A control as set by a hand at a frame: on a keyframe that one is moved; between them all are, by as much. */
export function setParameterAt(
  grade: GradeDocument,
  stepId: string,
  key: string,
  value: number,
  frame: number,
  bounds: { readonly min: number; readonly max: number } = { min: -Infinity, max: Infinity },
): GradeDocument {
  const known = keyframesOf(grade, stepId, key)
  if (!known) return setParameter(grade, stepId, key, value)
  const by = value - valueAt(known, frame)
  const here = known.keyframes.some((m) => m.frame === frame)
  if (by === 0) return grade
  const moved = (v: number): number => Math.min(bounds.max, Math.max(bounds.min, Math.round((v + by) * 1e6) / 1e6))
  return setKeyframes(grade, {
    ...known,
    keyframes: known.keyframes.map((m) => {
      if (here) return m.frame === frame ? { frame, value } : m
      return { frame: m.frame, value: moved(m.value) }
    }),
  })
}
