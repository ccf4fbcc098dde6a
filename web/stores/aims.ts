// The aims of the open shot, what they were solved to, and whether that is still a proposal.
import { cutTo } from '@core/names'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { aimWords, type Aim, type BalanceLine, type ControlId, type Solution } from '@core/aims'
import type { GradeDocument } from '@core/grade'
import type { RevisionWhy } from '@contracts/requests'
import { useBalance } from './balance'
import { useGrade } from './grade'

/** The mean colour of a part of some picture, for others to be brought to. Luma, Cb and Cr as shares of the signal. */
export interface Remembered {
  readonly name: string
  readonly luma: number
  readonly cb: number
  readonly cr: number
}

export const useAims = defineStore('aims', () => {
  const grade = useGrade()
  const choices = useBalance()
  const shotId = ref<string | null>(null)
  const aims = shallowRef<readonly Aim[]>([])
  const refused = shallowRef<ReadonlySet<string>>(new Set())
  const locked = shallowRef<ReadonlySet<ControlId>>(new Set())
  /** The lines of Balance for me, where the aims come from it. */
  const lines = shallowRef<readonly BalanceLine[]>([])
  /** The aims are being worked on: what they come to is shown, and not kept yet. */
  const pending = ref(false)
  const solution = shallowRef<Solution | null>(null)
  const solving = ref(false)
  const fault = ref('')
  const open = ref(false)
  /** Stays from shot to shot. */
  const remembered = shallowRef<Remembered | null>(null)

  const wanted = computed(() => aims.value.filter((a) => !refused.value.has(a.id)))
  /** The grade as the aims would have it; null while there is nothing to show. */
  const proposal = computed<GradeDocument | null>(() => (pending.value && solution.value ? solution.value.grade : null))

  function begin(shot: string): void {
    if (shotId.value === shot) return
    shotId.value = shot
    clear()
    open.value = false
  }
  function clear(): void {
    aims.value = []
    lines.value = []
    refused.value = new Set()
    pending.value = false
    solution.value = null
    fault.value = ''
  }
  /** Puts an aim in, or another value for one that is there. */
  function set(aim: Aim): void {
    const at = aims.value.findIndex((a) => a.id === aim.id)
    aims.value = at < 0 ? [...aims.value, aim] : aims.value.map((a, i) => (i === at ? aim : a))
    refused.value = new Set([...refused.value].filter((id) => id !== aim.id))
    pending.value = open.value = true
    // One thing is proposed at a time.
    choices.close()
  }
  function drop(id: string): void {
    aims.value = aims.value.filter((a) => a.id !== id)
    lines.value = lines.value.filter((l) => l.id !== id)
    if (aims.value.length === 0) takeBack()
  }
  function balance(by: readonly BalanceLine[]): void {
    clear()
    choices.close()
    lines.value = by
    aims.value = by.flatMap((l) => l.aim ?? [])
    pending.value = aims.value.length > 0
    open.value = true
  }
  const changed = <T>(of: ReadonlySet<T>, one: T, inside: boolean): ReadonlySet<T> =>
    new Set(inside ? [...of, one] : [...of].filter((o) => o !== one))
  function refuse(id: string, so: boolean): void {
    refused.value = changed(refused.value, id, so)
    pending.value = wanted.value.length > 0
  }
  function lock(id: ControlId, so: boolean): void {
    locked.value = changed(locked.value, id, so)
    pending.value = wanted.value.length > 0
  }
  function keep(): void {
    const found = solution.value
    if (!found || !pending.value || solving.value) return
    pending.value = false
    const why: RevisionWhy = {
      kind: 'aim',
      aims: found.aims.map(({ aim, met }) => cutTo(`${aimWords(aim)}${met ? '' : ', not met'}`, 200)),
    }
    grade.edit(lines.value.length > 0 ? 'Aims to the standard' : 'Aims', () => found.grade, why)
  }
  function takeBack(): void {
    pending.value = false
    solution.value = null
  }
  return {
    shotId,
    aims,
    lines,
    refused,
    locked,
    pending,
    solution,
    solving,
    fault,
    open,
    remembered,
    wanted,
    proposal,
    begin,
    clear,
    set,
    drop,
    balance,
    refuse,
    lock,
    keep,
    takeBack,
  }
})
