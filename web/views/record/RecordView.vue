<!-- Long: the list, what is compared and the versions share one record. -->

<script setup lang="ts">
// The Record of a shot: every revision with what it changed and why, versions, comparing two, and going back.
import { computed, ref, shallowRef, watch } from 'vue'
import { differences, type GradeDocument } from '@core/grade'
import { checked } from '@contracts/check'
import { GoBack, NewVersion } from '@contracts/requests'
import type { RecordEntry, RevisionState, ShotRecord } from '@contracts/responses'
import { changeSeen, ifSeen, post, request, sentenceOf } from '../../api/client'
import { thumbnailAddress } from '../../api/thumbnail'
import AppHeader from '../../components/AppHeader.vue'
import EmptyState from '../../components/EmptyState.vue'
import Notice from '../../components/Notice.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import type { Compared } from './compared'
import ComparedRevisions from './ComparedRevisions.vue'
import RecordLine from './RecordLine.vue'
import { text } from './text'
import VersionGrid from './VersionGrid.vue'
import VersionList from './VersionList.vue'

const props = defineProps<{ shotId: string }>()
const { fault, attempt } = useAttempt()
const openShot = useOpenShot()
const grade = useGrade()
const words = ref('')
const record = shallowRef<ShotRecord | null>(null)
const shot = computed(() => (openShot.shot?.id === props.shotId ? openShot.shot : null))

const address = (what: string): string => `/shots/${encodeURIComponent(props.shotId)}/${what}`
/** So many of the newest are read: a record of years stays quick. */
const mostRevisions = 2000
/** Counts what was asked for: a late answer changes nothing. */
let loads = 0
const load = (): Promise<void> =>
  attempt(async () => {
    const mine = ++loads
    let known = await request<ShotRecord>(address('record'))
    // A long record comes a page at a time; the newest are shown while the others are on their way.
    for (let { next } = known; mine === loads;) {
      record.value = known
      if (next === null || known.revisions.length >= mostRevisions) return
      const page = await request<ShotRecord>(address(`record?behind=${encodeURIComponent(next)}`))
      known = { ...known, revisions: [...known.revisions, ...page.revisions] }
      next = page.next
    }
  })
watch(
  () => props.shotId,
  (id) =>
    attempt(async () => {
      if (await openShot.open(id)) await load()
    }),
  { immediate: true },
)
// Undo and redo in the header move the head.
watch(
  () => grade.revision?.headId,
  (head, before) => {
    if (before && head !== before) void load()
  },
)

const versionNames = computed(() => {
  const names = new Map<string, string[]>()
  for (const v of record.value?.versions ?? []) names.set(v.revisionId, [...(names.get(v.revisionId) ?? []), v.name])
  return names
})
/** From the head back to the start, and from the tip back to the head. */
const path = computed(() => {
  const byId = new Map((record.value?.revisions ?? []).map((r) => [r.id, r]))
  const on = new Set<string>()
  const ahead = new Set<string>()
  for (let at = byId.get(record.value?.headId ?? ''); at; at = byId.get(at.parentId ?? '')) on.add(at.id)
  for (let at = byId.get(record.value?.tipId ?? ''); at && !on.has(at.id); at = byId.get(at.parentId ?? ''))
    ahead.add(at.id)
  return { on, ahead }
})
const place = (r: RecordEntry): string => {
  if (r.id === record.value?.headId) return text.present
  if (path.value.on.has(r.id)) return ''
  if (path.value.ahead.has(r.id)) return text.redo
  return text.beside
}
const saying = (r: RecordEntry): string =>
  [r.summary, ...r.changes, ...(r.why?.aims ?? []), ...(versionNames.value.get(r.id) ?? [])].join(' ').toLowerCase()
const shown = computed(() =>
  (record.value?.revisions ?? []).filter((r) =>
    words.value
      .toLowerCase()
      .split(/\s+/)
      .every((w) => saying(r).includes(w)),
  ),
)
const nameOf = (id: string): string =>
  versionNames.value.get(id)?.[0] ?? text.revision(record.value?.revisions.find((r) => r.id === id)?.depth ?? 0)
const still = (revisionId: string): string =>
  shot.value ? thumbnailAddress({ ...shot.value, revisionId, frame: shot.value.leadFrame, as: 'graded' }) : ''

const giveName = (id: string, name: string): Promise<void> =>
  attempt(async () => {
    const seen = record.value?.versions.find((v) => v.name === name.trim())?.revisionId ?? null
    const body = checked(NewVersion, { revisionId: id, name })
    await changeSeen(() => post(address('versions'), body, ifSeen(seen)), load)
    await load()
  })
const removeName = (id: string): Promise<void> =>
  attempt(async () => {
    const seen = record.value?.versions.find((v) => v.id === id)?.revisionId ?? null
    await changeSeen(() => request(`/versions/${id}`, { method: 'DELETE', ...ifSeen(seen) }), load)
    await load()
  })
const goBack = (id: string): Promise<void> =>
  attempt(async () => {
    await grade.commit()
    if (!record.value) return
    const body = checked(GoBack, { expectedId: record.value.headId, revisionId: id })
    const state = await post<RevisionState>(address('back'), body)
    grade.take(props.shotId, state)
    await load()
  })

const grid = ref(false)
const gradeOf = (id: string): Promise<GradeDocument> => request<GradeDocument>(address(`revisions/${id}`))
/** The revision whose name is being typed. */
const naming = ref<string | null>(null)
const first = ref<string | null>(null)
const compared = shallowRef<Compared | null>(null)
function choose(id: string): void {
  compared.value = null
  const a = first.value
  if (a === null || a === id) {
    first.value = a === id ? null : id
    return
  }
  first.value = null
  void attempt(async () => {
    const [from, to] = await Promise.all([gradeOf(a), gradeOf(id)])
    compared.value = { a, b: id, words: differences(from, to).map((d) => d.words) }
  })
}
</script>

<template>
  <div class="page">
    <AppHeader
      :project="shot ? { id: shot.projectId, name: shot.projectName } : undefined"
      :shot="shot"
    />
    <main class="record">
      <div class="top">
        <h1>{{ text.title }}</h1>
        <input
          :data-tip="text.filterTip"
          v-model="words"
          type="search"
          class="field filter"
          :placeholder="text.filter"
          :aria-label="text.filter"
        />
        <span class="quiet lead">{{ text.lead }}</span>
        <button
          :data-tip="text.gridTip"
          type="button"
          class="button"
          :aria-pressed="grid"
          :disabled="!record?.versions.length"
          @click="grid = !grid"
        >
          {{ grid ? text.list : text.showGrid }}
        </button>
        <RouterLink
          v-if="shot"
          :data-tip="text.sheetTip"
          class="button"
          :to="{ name: 'sheet', params: { shotId: shot.id } }"
        >
          {{ text.sheet }}
        </RouterLink>
        <RouterLink
          v-if="shot"
          class="button"
          :to="{ name: 'project-sheet', params: { projectId: shot.projectId } }"
        >
          {{ text.projectSheet }}
        </RouterLink>
      </div>
      <Notice
        :text="fault"
        @close="fault = ''"
      />
      <ComparedRevisions
        v-if="compared"
        :compared="compared"
        :name-of="nameOf"
        :still="still"
        @close="compared = null"
      />
      <VersionGrid
        v-if="grid && record"
        :versions="record.versions"
        :head-id="record.headId"
        :still="still"
        :load="gradeOf"
        @back="goBack"
        @fault="fault = sentenceOf($event)"
      />
      <div
        v-else
        class="body"
      >
        <VersionList
          v-if="record"
          :record="record"
          :name-of="nameOf"
          :still="still"
          @back="goBack"
          @remove="removeName"
          @name="naming = record.headId"
        />
        <ol
          class="entries"
          tabindex="-1"
        >
          <RecordLine
            v-for="r in shown"
            :key="r.id"
            :entry="r"
            :here="r.id === record?.headId"
            :off="!path.on.has(r.id)"
            :place="place(r)"
            :names="versionNames.get(r.id) ?? []"
            :still="still(r.id)"
            :chosen="first === r.id"
            :naming="naming === r.id"
            @naming="naming = $event ? r.id : null"
            @name="giveName(r.id, $event)"
            @compare="choose(r.id)"
            @back="goBack(r.id)"
          />
          <li v-if="record && shown.length === 0">
            <EmptyState :hint="text.none">
              <button
                type="button"
                class="button"
                @click="words = ''"
              >
                {{ text.showAll }}
              </button>
            </EmptyState>
          </li>
        </ol>
      </div>
    </main>
  </div>
</template>

<style scoped src="./record.css"></style>
