// A value for every frame as few marks with straight paths between them.

export interface Mark {
  readonly frame: number
  readonly value: number
}
/** One value a frame, in order of frames. */
export type Course = readonly Mark[]

/** More marks than this is a flicker, which marks are no means against. */
const most = 40

/**
 * The fewest marks found from which no frame is farther than the tolerance (Ramer 1972; Douglas and Peucker 1973, on
 * the vertical distance); with a wider tolerance where those were too many.
 */
export function marksOf(course: Course, tolerance: number): Course {
  for (let wide = tolerance; ; wide *= 1.5) {
    const kept = new Set([0, course.length - 1])
    split(course, 0, course.length - 1, wide, kept)
    if (kept.size <= most) return [...kept].sort((a, b) => a - b).flatMap((i) => course[i] ?? [])
  }
}

function split(course: Course, from: number, to: number, tolerance: number, kept: Set<number>): void {
  const [a, b] = [course[from], course[to]]
  let worst = from
  let far = tolerance
  for (let i = from + 1; i < to; i++) {
    const along = (course[i].frame - a.frame) / (b.frame - a.frame)
    const off = Math.abs(course[i].value - (a.value + along * (b.value - a.value)))
    if (off > far) {
      far = off
      worst = i
    }
  }
  if (worst === from) return
  kept.add(worst)
  split(course, from, worst, tolerance, kept)
  split(course, worst, to, tolerance, kept)
}

/** Means of neighbours, as many before as after, so that the noise of single frames is not followed. */
export const calmed = (course: Course, reach: number): Course =>
  course.map(({ frame }, i) => {
    const near = Math.min(reach, i, course.length - 1 - i)
    const about = course.slice(i - near, i + near + 1)
    return { frame, value: about.reduce((sum, m) => sum + m.value, 0) / about.length }
  })

/**
 * How much single frames differ by chance, as a standard deviation: by how far each lies off the middle of its two
 * neighbours, which a course that rises evenly does not count for.
 */
export function noiseOf(course: Course): number {
  const off = course
    .slice(1, -1)
    .map(({ value }, i) => Math.abs(value - (course[i].value + course[i + 2].value) / 2))
    .sort((a, b) => a - b)
  return (1.4826 * (off[off.length >> 1] ?? 0)) / Math.sqrt(1.5)
}

/**
 * Without the frames that stand apart from those about them: something passed by, or a flash. As many are looked at
 * before a frame as after it, so that a steep course is not taken for one that stands apart.
 */
export function withoutOutliers(course: Course, most: number, reach: number): Course {
  return course.filter(({ value }, i) => {
    const near = Math.min(reach, i, course.length - 1 - i)
    const about = course
      .slice(i - near, i + near + 1)
      .map((m) => m.value)
      .sort((a, b) => a - b)
    return Math.abs(value - about[near]) <= most
  })
}
