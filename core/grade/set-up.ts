// Shots of one set-up: a correction made on one is made on all, by as much; what sets a shot apart from the others
// stays.
import type { GradeDocument, ParameterValue, Step } from './document'
import { withoutLostKeyframes } from './edits'
import { stepKindById } from './steps'
import { same } from './same'

const ofWhole = (step: Step): boolean => step.regionId === undefined && step.lookId === undefined

/**
 * `member` with what changed from `before` to `after` on another shot of its set-up. Numbers move by as much and stay
 * within their control, so that an offset of the member's own is kept; anything else becomes what it is there. Only
 * steps of the whole picture follow: regions lie where they lie in a shot, a shared look comes from its own source, and
 * how a shot is read and shown, and what is marked along its clip, is its own. The same object where nothing follows.
 */
export function followChange(member: GradeDocument, before: GradeDocument, after: GradeDocument): GradeDocument {
  const find = (grade: GradeDocument, id: string): Step | undefined =>
    grade.steps.find((s) => s.id === id && ofWhole(s))
  let animation = member.animation
  const followed = member.steps
    .filter((s) => !ofWhole(s) || !find(before, s.id) || find(after, s.id))
    .map((step): Step => {
      const was = find(before, step.id)
      const now = find(after, step.id)
      if (!was || !now || !ofWhole(step) || step.kind !== now.kind || same(was, now)) return step
      const params = Object.fromEntries(
        Object.entries(step.params).map(([key, value]): [string, ParameterValue] => {
          const from = was.params[key]
          const to = now.params[key]
          const parameter = stepKindById(step.kind).parameters[key]
          if (same(from, to)) return [key, value]
          if (
            typeof from !== 'number' ||
            typeof to !== 'number' ||
            typeof value !== 'number' ||
            parameter?.type !== 'number'
          )
            return [key, to ?? value]
          const moved = (v: number): number =>
            Math.min(parameter.max, Math.max(parameter.min, Math.round((v + to - from) * 1e6) / 1e6))
          animation = animation.map((m) =>
            m.stepId === step.id && m.key === key
              ? { ...m, keyframes: m.keyframes.map((keyframe) => ({ ...keyframe, value: moved(keyframe.value) })) }
              : m,
          )
          return [key, moved(value)]
        }),
      )
      const own = <K extends 'name' | 'enabled' | 'strength' | 'side'>(key: K): Step[K] =>
        was[key] === now[key] ? step[key] : now[key]
      return {
        ...step,
        name: own('name'),
        enabled: own('enabled'),
        strength: own('strength'),
        side: own('side'),
        params,
      }
    })
  const added = after.steps.filter((s) => ofWhole(s) && !find(before, s.id) && !member.steps.some((m) => m.id === s.id))
  const next = { ...member, steps: [...followed, ...added], animation }
  return same(next.steps, member.steps) && same(animation, member.animation) ? member : withoutLostKeyframes(next)
}
