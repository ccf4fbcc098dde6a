// The grade a shot starts with: its encoding read, one neutral step of each hand control, shown straight.
import { encodingById } from '../colour'
import type { CodeRange } from '../image'
import { currentSchema, lutTakesSide, type GradeDocument, type Step } from './document'
import { defaultShowParameters } from './show/parameters'
import { defaultParameters } from './step-kind'
import { stepKindById } from './steps'

/** A neutral step of a kind. `id` must be unique within its document. */
export function newStep(kindId: string, id: string, regionId?: string): Step {
  const kind = stepKindById(kindId)
  const step: Step = {
    id,
    kind: kindId,
    name: kind.name,
    enabled: true,
    strength: 1,
    side: kindId === 'lut' ? 'display' : 'scene',
    params: defaultParameters(kind),
  }
  return regionId === undefined ? step : { ...step, regionId }
}

export function defaultGrade(
  encodingId: string,
  gamutId: string = encodingById(encodingId).gamutIds[0],
  range: CodeRange = 'full',
): GradeDocument {
  return {
    schema: currentSchema,
    working: 'scene',
    read: { method: 'formula', encodingId, gamutId, range, lutHash: null, lutStrength: 1 },
    steps: [
      'exposure',
      'white-balance',
      'black-offset',
      'balance-by-tone',
      'contrast',
      'ends',
      'local-contrast',
      'tone-curve',
      'saturation',
      'colour-curves',
      'lut',
    ].map((kind) => newStep(kind, kind)),
    along: [],
    regions: [],
    show: {
      method: 'straight',
      displayId: 'bt709-2.4',
      lutHash: null,
      lutTakes: lutTakesSide,
      lutStrength: 1,
      gamutMethod: 'clip',
      params: defaultShowParameters,
    },
  }
}
