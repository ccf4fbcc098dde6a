// Grade documents of earlier schemas, brought to the present one step by step.
import { currentSchema, lutTakesSide } from './document'
import { newStep } from './defaults'
import { regionKinds, regionSteps } from './region-edits'
import { defaultShowParameters } from './show/parameters'

type Json = Readonly<Record<string, unknown>>
const isObject = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v)

/** Index n brings schema n + 1 to n + 2. */
const steps: readonly ((grade: Json) => Json)[] = [
  // 2: conversion by LUT in Read and Show, shoulders and gamut compression, and the side one works on.
  ({ read, show, ...rest }) => ({
    ...rest,
    working: 'scene',
    read: isObject(read) ? { method: 'formula', lutHash: null, ...read } : read,
    show: isObject(show) ? { ...show, lutHash: null, gamutMethod: 'clip', params: defaultShowParameters } : show,
  }),
  // 3: black offset, balance by tone, highlights and shadows; a second saturation for quiet colours.
  ({ steps: old, ...rest }) => ({
    ...rest,
    steps: Array.isArray(old)
      ? withNewSteps(old.map(withQuiet), rest['working'], {
          'white-balance': ['black-offset', 'balance-by-tone'],
          contrast: ['ends'],
        })
      : old,
  }),
  // 4: controls that change along the clip.
  (grade) => ({ ...grade, along: [] }),
  // 5: curves for each channel, curves for colours, and what a supplied table is given.
  ({ steps: old, show, ...rest }) => ({
    ...rest,
    steps: Array.isArray(old)
      ? withNewSteps(old.map(withChannels), rest['working'], { saturation: ['colour-curves'] })
      : old,
    show: isObject(show) ? { ...show, lutTakes: lutTakesSide } : show,
  }),
  // 6: regions of several pieces, with all tools; local contrast of the whole picture.
  ({ steps: old, regions, ...rest }) => ({
    ...rest,
    regions: Array.isArray(regions) ? regions.map(inPieces) : regions,
    steps: Array.isArray(old)
      ? withAllTools(
          withNewSteps(old, rest['working'], { ends: ['local-contrast'] }),
          Array.isArray(regions) ? regions : [],
          rest['working'],
        )
      : old,
  }),
  // 7: the strength of a table in Read and in Show.
  ({ read, show, ...rest }) => ({
    ...rest,
    read: isObject(read) ? { ...read, lutStrength: 1 } : read,
    show: isObject(show) ? { ...show, lutStrength: 1 } : show,
  }),
]

/** A region that was one ellipse with a feather. Recipes keep such regions too. */
export function inPieces(region: unknown): unknown {
  if (!isObject(region) || !isObject(region['shape'])) return region
  const { shape, feather, ...rest } = region
  const { radiusX, radiusY } = shape
  const half =
    typeof feather === 'number' && typeof radiusX === 'number' && typeof radiusY === 'number'
      ? (feather / 2) * Math.min(radiusX, radiusY)
      : 0
  return {
    ...rest,
    strength: 1,
    pieces: [
      {
        id: 'piece-1',
        mode: 'add',
        invert: false,
        opacity: 1,
        source: { kind: 'shape', shape, inner: half, outer: half },
      },
    ],
  }
}

/** Every region offers every tool, neutral where it had none. */
function withAllTools(steps: readonly unknown[], regions: readonly unknown[], working: unknown): readonly unknown[] {
  const ids = regions.flatMap((r) => (isObject(r) && typeof r['id'] === 'string' ? [r['id']] : []))
  const ofRegion = (step: unknown, id: string): boolean => isObject(step) && step['regionId'] === id
  const tools = ids.flatMap((id) => {
    const own = steps.filter((s) => ofRegion(s, id))
    const kindOf = (s: unknown): unknown => (s as Json)['kind']
    return [
      ...regionSteps({ working: working === 'display' ? 'display' : 'scene' }, id).map(
        (fresh) => own.find((s) => kindOf(s) === fresh.kind) ?? fresh,
      ),
      ...own.filter((s) => !regionKinds.some((kind) => kind === kindOf(s))),
    ]
  })
  return [...steps.filter((s) => !ids.some((id) => ofRegion(s, id))), ...tools]
}

const added: Readonly<Record<string, () => Json>> = {
  'tone-curve': () => {
    const { points: _, ...channels } = newStep('tone-curve', '').params
    return channels
  },
  lut: () => ({ takes: lutTakesSide }),
}
function withChannels(step: unknown): unknown {
  const more = isObject(step) ? added[String(step['kind'])] : undefined
  return isObject(step) && isObject(step['params']) && more
    ? { ...step, params: { ...more(), ...step['params'] } }
    : step
}

const withQuiet = (step: unknown): unknown =>
  isObject(step) && step['kind'] === 'saturation' && isObject(step['params'])
    ? { ...step, params: { ...step['params'], quiet: 1 } }
    : step

/** The new steps of the whole picture behind those they belong to, on the side that the others stand on. */
function withNewSteps(
  steps: readonly unknown[],
  side: unknown,
  behind: Readonly<Record<string, readonly string[]>>,
): readonly unknown[] {
  return steps.flatMap((step) => {
    const kinds = isObject(step) && step['regionId'] === undefined ? behind[String(step['kind'])] : undefined
    return [
      step,
      ...(kinds ?? [])
        .filter((kind) => !steps.some((s) => isObject(s) && s['id'] === kind))
        .map((kind) => ({ ...newStep(kind, kind), side: side === 'display' ? 'display' : 'scene' })),
    ]
  })
}

/**
 * The data in the present schema; still to be validated. What is no document of an earlier schema is returned as it is.
 */
export function migrateGrade(data: unknown): unknown {
  if (!isObject(data) || typeof data['schema'] !== 'number') return data
  let grade = data
  for (let schema = data['schema']; schema >= 1 && schema < currentSchema; schema++)
    grade = { ...steps[schema - 1]?.(grade), schema: schema + 1 }
  return grade
}
