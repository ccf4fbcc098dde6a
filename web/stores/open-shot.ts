// The one owner of the open shot: what the server says of it, and which one it is. Its document is in the grade store,
// which only this store opens.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { NewSubject, NewWaiver, PickedArea } from '@contracts/readings'
import { LeadFrame } from '@contracts/requests'
import type { ShotDetail } from '@contracts/responses'
import { changeSeen, ifSeen, post, put, request } from '../api/client'
import { useGrade } from './grade'

export const useOpenShot = defineStore('open-shot', () => {
  const grade = useGrade()
  const shot = shallowRef<ShotDetail | null>(null)
  /** Counts what was asked for: a late answer for a shot that was left changes nothing. */
  let openings = 0
  /** The shot that was asked for last: it may still be on its way. */
  let wantedId: string | null = null

  const detailOf = (id: string): Promise<ShotDetail> => request<ShotDetail>(`/shots/${encodeURIComponent(id)}`)

  /**
   * Opens a shot once all that was edited on the one before is on its way. Null where another was opened meanwhile.
   * `prepare` is called in the turn in which it becomes the open one: nobody sees it before.
   */
  async function open(id: string, prepare?: (found: ShotDetail) => void): Promise<ShotDetail | null> {
    const mine = ++openings
    wantedId = id
    await grade.commit()
    const found = await detailOf(id)
    if (mine !== openings) return null
    // An edit made while the answer was under way is sent before its shot is left.
    await grade.commit()
    if (mine !== openings) return null
    prepare?.(found)
    shot.value = found
    grade.open(found)
    return found
  }
  /** Reads the open shot's facts again (its proxy, its look); its document stays. */
  async function refresh(): Promise<void> {
    const id = shot.value?.id
    const mine = openings
    if (id === undefined) return
    const found = await detailOf(id)
    if (mine === openings && shot.value?.id === id) shot.value = found
  }

  /** Opens a shot anew after the server changed its grade on another way; nothing where it was left meanwhile. */
  async function reopen(id: string): Promise<void> {
    if (wantedId === id) await open(id)
  }

  /** Changes to what is pointed out in the open shot; each answers with the shot as it is now. */
  async function change(by: (open: ShotDetail) => Promise<ShotDetail>): Promise<void> {
    const open = shot.value
    if (!open) return
    const now = await changeSeen(() => by(open), refresh)
    if (shot.value?.id === open.id) shot.value = { ...now, revision: shot.value.revision }
  }
  /** Points at something or, with null, no longer, where it still is as it was seen. */
  const point = (path: string, area: PickedArea | null, seen: ShotDetail['card']): Promise<ShotDetail> =>
    area
      ? put(path, checked(PickedArea, area), ifSeen(seen))
      : request<ShotDetail>(path, { method: 'DELETE', ...ifSeen(seen) })

  async function setLeadFrame(leadFrame: number): Promise<void> {
    const open = shot.value
    if (!open) return
    await put(`/shots/${open.id}/lead-frame`, checked(LeadFrame, { leadFrame }))
    if (shot.value?.id === open.id) shot.value = { ...shot.value, leadFrame }
  }
  return {
    shot,
    open,
    refresh,
    reopen,
    setLeadFrame,
    pickCard: (area: PickedArea | null): Promise<void> =>
      change(({ id, card }) => point(`/shots/${id}/card`, area, card)),
    makeSubject: (subject: Omit<NewSubject, 'shotId'>): Promise<void> =>
      change(({ id, projectId, subjects }) =>
        post<ShotDetail>(
          `/projects/${projectId}/subjects`,
          checked(NewSubject, { ...subject, shotId: id }),
          ifSeen(subjects.find((s) => s.name === subject.name)?.card ?? null),
        ),
      ),
    placeSubject: (subjectId: string, area: PickedArea | null): Promise<void> =>
      change(({ id, subjects }) =>
        point(`/shots/${id}/subjects/${subjectId}`, area, subjects.find((s) => s.id === subjectId)?.here ?? null),
      ),
    waive: (waiver: NewWaiver): Promise<void> =>
      change(({ id }) => post<ShotDetail>(`/shots/${id}/waivers`, checked(NewWaiver, waiver))),
  }
})
