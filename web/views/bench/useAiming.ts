// Aiming on the Bench: where aims come from (the standard, a reading, a handle, a part of the picture), and the solver
// that follows them.
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { balanceLines, controlIds, controlOf, wholeClipAims, type Aim, type ControlId } from '@core/aims'
import { defaultGrade, type GradeDocument } from '@core/grade'
import type { FrameTrace } from '@core/instruments'
import type { Area, Finding, HouseStandard, Pointed } from '@core/readings'
import { useAimSolver, type AimsSubject } from '../../composables/useAimSolver'
import { useAims, type Remembered } from '../../stores/aims'
import { useBalance } from '../../stores/balance'
import { aimOfHandle, type LevelHandle } from './aims/handles'
import { text } from './text'

export interface AimSurroundings {
  readonly shotId: () => string | null
  readonly subject: () => AimsSubject | null
  readonly findings: () => readonly Finding[]
  /** The findings are of the picture as it is now. */
  readonly fresh: () => boolean
  readonly standard: () => HouseStandard
  readonly pointed: () => Pointed
  readonly part: () => Area | null
  /** The mean colour of the part, and where it is: kept, so that another frame or shot can be brought to it. */
  readonly partColour: () => Remembered | null
  readonly traces: () => { readonly traces: readonly (FrameTrace | undefined)[]; readonly first: number }
}

export type PartAim = 'neutral' | 'black' | 'white' | 'grey' | 'remember' | 'same'

export interface Aiming {
  /** The grade as the aims would have it. */
  readonly proposal: ComputedRef<GradeDocument | null>
  readonly controlNames: Readonly<Record<ControlId, string>>
  readonly ready: ComputedRef<boolean>
  readonly waiting: Ref<boolean>
  readonly balance: () => void
  readonly aimHandle: (id: LevelHandle['id'], value: number) => void
  readonly aimPart: (what: PartAim) => void
  readonly aim: (aim: Aim) => void
  /** Keeps the clip's brightest and darkest frame inside the standard. */
  readonly wholeClip: () => void
  readonly traced: ComputedRef<boolean>
  readonly show: (on: boolean) => void
}

const blank = defaultGrade('bt709-camera')
const controlNames = Object.fromEntries(
  controlIds.map((id) => [id, controlOf(blank, id)?.parameter.label ?? id]),
) as Record<ControlId, string>

export function useAiming({
  shotId,
  subject,
  findings,
  fresh,
  standard,
  pointed,
  part,
  partColour,
  traces,
}: AimSurroundings): Aiming {
  const store = useAims()
  const waiting = ref(false)
  useAimSolver(subject)
  watch(
    shotId,
    (id) => {
      if (id) store.begin(id)
    },
    { immediate: true },
  )
  function balance(): void {
    store.open = true
    // What is measured is of the grade as it stands, not of what earlier aims propose.
    waiting.value = store.pending || !fresh()
    store.takeBack()
    if (!waiting.value) store.balance(balanceLines(findings(), standard(), pointed()))
  }
  watch(fresh, (now) => {
    if (now && waiting.value && !store.pending) balance()
  })
  function aimPart(what: PartAim): void {
    const area = part()
    if (!area) return
    const areas = [area]
    const id = `part-${what}`
    switch (what) {
      case 'neutral': {
        // Several picks of a neutral are one aim: their light is averaged.
        const before = store.aims.find((a) => a.id === id)?.want
        return store.set({
          id,
          name: text.aims.partNeutral,
          rank: 1,
          want: { kind: 'neutral', areas: before?.kind === 'neutral' ? [...before.areas, area].slice(-8) : areas },
        })
      }
      case 'grey':
        return store.set({ id, name: text.aims.partGrey, rank: 1, want: { kind: 'light', areas, stops: 0 } })
      case 'remember':
        store.remembered = partColour()
        return
      case 'same': {
        const { remembered } = store
        if (remembered)
          store.set({
            id,
            name: text.aims.same(remembered.name),
            rank: 2,
            want: { kind: 'colour', areas, luma: remembered.luma, cb: remembered.cb, cr: remembered.cr },
          })
        return
      }
      case 'black':
        return store.set({ id, name: text.aims.partName.black, rank: 1, want: { kind: 'luma', areas, value: 0.04 } })
      case 'white':
        return store.set({ id, name: text.aims.partName.white, rank: 1, want: { kind: 'luma', areas, value: 0.92 } })
    }
  }
  return {
    proposal: computed(() => store.proposal),
    controlNames,
    ready: computed(() => fresh() || waiting.value),
    waiting,
    balance,
    aimPart,
    aimHandle: (id, value) => store.set(aimOfHandle(id, value)),
    aim: store.set,
    traced: computed(() => traces().traces.some((t) => t !== undefined)),
    wholeClip: () => {
      const { traces: found, first } = traces()
      for (const aim of wholeClipAims(found, first, standard())) store.set(aim)
    },
    show: (on) => {
      store.open = on
      if (!on) useBalance().close()
    },
  }
}
