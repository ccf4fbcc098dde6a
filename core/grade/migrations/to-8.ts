// 8: what changes along the clip is called animation, its places keyframes; the saturation of weak colours is called
// vibrance.
import { isObject, type Json } from './json'

const vibrance = (key: unknown): unknown => (key === 'quiet' ? 'vibrance' : key)

export function toSchema8({ along, steps, ...rest }: Json): Json {
  return {
    ...rest,
    steps: Array.isArray(steps) ? steps.map(renamed) : steps,
    animation: Array.isArray(along)
      ? along.map((entry: unknown) => {
          if (!isObject(entry)) return entry
          const { marks, ...of } = entry
          return { ...of, key: vibrance(of['key']), keyframes: marks }
        })
      : [],
  }
}

/** The parameters in the order they had. */
function renamed(step: unknown): unknown {
  if (!isObject(step) || step['kind'] !== 'saturation' || !isObject(step['params'])) return step
  const params = Object.entries(step['params']).map(([key, value]) => [vibrance(key), value] as const)
  return { ...step, params: Object.fromEntries(params) as Json }
}
