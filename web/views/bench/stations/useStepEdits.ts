// Edits of steps from their declarations: a control is set at this frame, a step is added or removed.
import {
  addStep,
  removeStep,
  setParameter,
  setParameterAt,
  stepKindById,
  type ParameterValue,
  type Step,
} from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { useView } from '../../../stores/view'

export interface StepEdits {
  /** Sets a parameter; a number that is marked along the clip is set at this frame. */
  readonly change: (step: Step, key: string, value: ParameterValue) => void
  readonly add: (kindId: string) => void
  readonly remove: (step: Step) => void
}

export function useStepEdits(): StepEdits {
  const grade = useGrade()
  const view = useView()
  return {
    change(step, key, value) {
      const parameter = stepKindById(step.kind).parameters[key]
      const label = parameter?.label ?? step.name
      if (typeof value === 'number' && parameter?.type === 'number')
        grade.edit(`${label} ${value}`, (g) => setParameterAt(g, step.id, key, value, view.frame, parameter))
      else grade.edit(label, (g) => setParameter(g, step.id, key, value))
    },
    add(kindId) {
      const { name } = stepKindById(kindId)
      grade.edit(`${name} added`, (g) => addStep(g, kindId, name, {}))
    },
    remove: (step) => grade.edit(`${step.name} removed`, (g) => removeStep(g, step.id)),
  }
}
