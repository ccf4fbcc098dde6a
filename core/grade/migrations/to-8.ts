// 8: what changes along the clip is called animation, its places keyframes; what a region is built from, components;
// the saturation of weak colours, vibrance.
import { isObject, type Json } from './json'

const vibrance = (key: unknown): unknown => (key === 'quiet' ? 'vibrance' : key)

export function toSchema8({ along, steps, regions, ...rest }: Json): Json {
  return {
    ...rest,
    steps: Array.isArray(steps) ? steps.map(renamed) : steps,
    regions: Array.isArray(regions) ? regions.map(inComponents) : regions,
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

/** A region whose components were called pieces. Recipes keep such regions too. */
export function inComponents(region: unknown): unknown {
  if (!isObject(region) || !('pieces' in region)) return region
  const { pieces, ...rest } = region
  return { ...rest, components: pieces }
}
