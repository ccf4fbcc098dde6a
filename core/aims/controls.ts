// The controls that aims may move: which parameter of which step, how far, and what counts as one equally large change.
import {
  gradeAt,
  printParameter,
  setParameterAt,
  stepKindById,
  type GradeDocument,
  type NumberParameter,
} from '../grade'
import type { Want } from './aim'

export type ControlId =
  | 'exposure'
  | 'temperature'
  | 'tint'
  | 'blackOffset'
  | 'contrast'
  | 'highlights'
  | 'shadows'
  | 'saturation'
  | 'shadowsMired'
  | 'shadowsTint'
  | 'highlightsMired'
  | 'highlightsTint'

interface Declared {
  readonly kind: string
  readonly key: string
  /** Changes of this size weigh the same, whichever control they are of. */ readonly scale: number
}
const declared: Readonly<Record<ControlId, Declared>> = {
  exposure: { kind: 'exposure', key: 'exposureStops', scale: 1 },
  temperature: { kind: 'white-balance', key: 'temperatureMired', scale: 30 },
  tint: { kind: 'white-balance', key: 'tint', scale: 10 },
  blackOffset: { kind: 'black-offset', key: 'blackOffset', scale: 0.02 },
  contrast: { kind: 'contrast', key: 'contrast', scale: 0.3 },
  highlights: { kind: 'ends', key: 'highlightStops', scale: 2 },
  shadows: { kind: 'ends', key: 'shadowStops', scale: 2 },
  saturation: { kind: 'saturation', key: 'saturation', scale: 0.3 },
  shadowsMired: { kind: 'balance-by-tone', key: 'shadowsMired', scale: 30 },
  shadowsTint: { kind: 'balance-by-tone', key: 'shadowsTint', scale: 10 },
  highlightsMired: { kind: 'balance-by-tone', key: 'highlightsMired', scale: 30 },
  highlightsTint: { kind: 'balance-by-tone', key: 'highlightsTint', scale: 10 },
}
export const controlIds = Object.keys(declared) as readonly ControlId[]

export interface Control {
  readonly id: ControlId
  readonly stepId: string
  readonly key: string
  readonly parameter: NumberParameter
  readonly value: number
  readonly scale: number
}

/** Dark below, bright above: what a level or a luma belongs to. */
const dark = 0.25
const bright = 0.75

/** What may move to meet a want; nothing else does. */
export function controlsFor(want: Want): readonly ControlId[] {
  switch (want.kind) {
    case 'level': {
      // A bound is for an end of the clip alone: the end gives way first, so that the frames between stay as they are.
      if (want.bound) return want.share < 0.5 ? ['shadows', 'blackOffset'] : ['highlights', 'exposure']
      if (want.channel !== undefined)
        return want.share < 0.5 ? ['shadowsMired', 'shadowsTint'] : ['highlightsMired', 'highlightsTint']
      if (want.share < dark) return ['blackOffset', 'contrast']
      if (want.share > bright) return ['exposure', 'contrast']
      return ['exposure']
    }
    case 'light':
      return ['exposure']
    case 'neutral':
      return ['temperature', 'tint']
    case 'luma':
      if (want.value < dark) return ['blackOffset', 'contrast']
      if (want.value > bright) return ['exposure', 'contrast']
      return ['exposure']
    case 'colour':
      return ['exposure', 'temperature', 'tint', 'saturation']
    case 'skin':
      return [
        ...(want.hueDegrees === undefined ? [] : (['temperature', 'tint'] as const)),
        ...(want.luma === undefined ? [] : (['exposure'] as const)),
        ...(want.chroma === undefined ? [] : (['saturation'] as const)),
      ]
    case 'chroma':
      return ['saturation']
  }
}

/** The control of the grade's whole picture that stands for an id; null where its step is missing or switched off. */
export function controlOf(grade: GradeDocument, id: ControlId): Control | null {
  const { kind, key, scale } = declared[id]
  const step = grade.steps.find(
    (s) => s.kind === kind && s.regionId === undefined && s.lookId === undefined && s.enabled && s.strength > 0,
  )
  const value = step?.params[key]
  const parameter = stepKindById(kind).parameters[key]
  if (!step || typeof value !== 'number' || parameter?.type !== 'number') return null
  return { id, stepId: step.id, key, parameter, value, scale }
}

/** A document with controls set as they should be on a frame; those that are marked along the clip are set there. */
export function withControlsAt(
  document: GradeDocument,
  moves: readonly { readonly control: ControlId; readonly to: number }[],
  frame: number,
): GradeDocument {
  const now = gradeAt(document, frame)
  return moves.reduce((next, { control, to }) => {
    const found = controlOf(now, control)
    return found ? setParameterAt(next, found.stepId, found.key, to, frame, found.parameter) : next
  }, document)
}

/** A control's value as tidy as a document should hold it. */
export function tidy({ parameter }: Control, value: number): number {
  const fine = 10 ** (parameter.decimals + 2) * (parameter.shownFactor ?? 1)
  return Math.min(parameter.max, Math.max(parameter.min, Math.round(value * fine) / fine))
}

/** A control's value with its unit: "+0.70 stops". */
export const printControl = ({ parameter }: Control, value: number): string => printParameter(parameter, value)
