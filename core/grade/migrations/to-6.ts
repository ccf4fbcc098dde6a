// 6: regions of several pieces, with all tools; local contrast of the whole picture.
// Literal: what an old schema meant never changes, whatever the program offers by now.
import { isObject, storedStep, withStepsBehind, type Json } from './json'

const behind = {
  ends: [
    {
      kind: 'local-contrast',
      name: 'Local contrast',
      params: { localContrast: 0, localSizePercent: 4 },
      id: 'local-contrast',
    },
  ],
}
/** The tools that every region offered, in their order. */
const tools: readonly { readonly kind: string; readonly name: string; readonly params: Json }[] = [
  { kind: 'exposure', name: 'Exposure', params: { exposureStops: 0 } },
  { kind: 'white-balance', name: 'White balance', params: { temperatureMired: 0, tint: 0 } },
  { kind: 'black-offset', name: 'Black offset', params: { blackOffset: 0 } },
  {
    kind: 'balance-by-tone',
    name: 'Balance by tone',
    params: { shadowsMired: 0, shadowsTint: 0, highlightsMired: 0, highlightsTint: 0 },
  },
  { kind: 'contrast', name: 'Contrast', params: { contrast: 1, pivotStops: 0 } },
  { kind: 'ends', name: 'Highlights and shadows', params: { highlightStops: 0, shadowStops: 0 } },
  {
    kind: 'tone-curve',
    name: 'Tone curve',
    params: {
      points: [
        { x: 0.0729, y: 0.0729 },
        { x: 0.8702, y: 0.8702 },
      ],
      red: [
        { x: 0.0729, y: 0.0729 },
        { x: 0.8702, y: 0.8702 },
      ],
      green: [
        { x: 0.0729, y: 0.0729 },
        { x: 0.8702, y: 0.8702 },
      ],
      blue: [
        { x: 0.0729, y: 0.0729 },
        { x: 0.8702, y: 0.8702 },
      ],
      redStrength: 1,
      greenStrength: 1,
      blueStrength: 1,
    },
  },
  { kind: 'local-contrast', name: 'Local contrast', params: { localContrast: 0, localSizePercent: 4 } },
  { kind: 'sharpness', name: 'Sharpness', params: { sharpness: 0, detailPercent: 0.25 } },
  { kind: 'saturation', name: 'Saturation', params: { saturation: 1, quiet: 1 } },
  {
    kind: 'colour-curves',
    name: 'Colour curves',
    params: {
      hueByHue: [
        { x: 30, y: 0 },
        { x: 210, y: 0 },
      ],
      saturationByHue: [
        { x: 30, y: 1 },
        { x: 210, y: 1 },
      ],
      lightnessByHue: [
        { x: 30, y: 0 },
        { x: 210, y: 0 },
      ],
      saturationByLightness: [
        { x: -6, y: 1 },
        { x: 4, y: 1 },
      ],
      saturationBySaturation: [
        { x: 0, y: 1 },
        { x: 0.6, y: 1 },
      ],
      cleanEnds: 'off',
      quietNoise: 0,
    },
  },
]

export const toSchema6 = ({ steps, regions, ...rest }: Json): Json => ({
  ...rest,
  regions: Array.isArray(regions) ? regions.map(inPieces) : regions,
  steps: Array.isArray(steps)
    ? withAllTools(
        withStepsBehind(steps, rest['working'], behind),
        Array.isArray(regions) ? regions : [],
        rest['working'],
      )
    : steps,
})

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
  const kindOf = (step: unknown): unknown => (isObject(step) ? step['kind'] : undefined)
  const ofRegion = (step: unknown, id: string): boolean => isObject(step) && step['regionId'] === id
  const carried = ids.flatMap((id) => {
    const own = steps.filter((s) => ofRegion(s, id))
    return [
      ...tools.map(
        (tool) =>
          own.find((s) => kindOf(s) === tool.kind) ?? {
            ...storedStep({ ...tool, id: `${id}-${tool.kind}` }, working),
            regionId: id,
          },
      ),
      ...own.filter((s) => !tools.some((tool) => tool.kind === kindOf(s))),
    ]
  })
  return [...steps.filter((s) => !ids.some((id) => ofRegion(s, id))), ...carried]
}
