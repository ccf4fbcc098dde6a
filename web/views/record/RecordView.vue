<script setup lang="ts">
// The Record of a shot: every revision with what it changed and why, versions, comparing two, and going back.
import { computed, ref, shallowRef, watch } from 'vue'
import { differences, type GradeDocument } from '@core/grade'
import { checked } from '@contracts/check'
import { GoBack, NewVersion } from '@contracts/requests'
import type { RecordEntry, RevisionState, ShotRecord } from '@contracts/responses'
import { post, request, sentenceOf } from '../../api/client'
import { thumbnailAddress } from '../../api/thumbnail'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import { text } from './text'
import VersionGrid from './VersionGrid.vue'

const props = defineProps<{ shotId: string }>()
const { fault, attempt } = useAttempt()
const openShot = useOpenShot()
const grade = useGrade()
const words = ref('')
const naming = ref<string | null>(null)
const name = ref('')
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
const time = (at: string): string => new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'medium' })
const still = (revisionId: string): string =>
  shot.value ? thumbnailAddress({ ...shot.value, revisionId, frame: shot.value.leadFrame, as: 'graded' }) : ''

/** "Balance for me: Card at 0.00 stops". */
function reasonOf({ why }: RecordEntry): string {
  const kind = text.why[why?.kind ?? 'hand'] ?? text.why['hand'] ?? ''
  return why?.aims?.length ? `${kind}: ${why.aims.join('; ')}` : kind
}

function giveName(id: string): void {
  const wanted = name.value.trim()
  if (!wanted) return
  void attempt(async () => {
    await post(address('versions'), checked(NewVersion, { revisionId: id, name: wanted }))
    naming.value = null
    name.value = ''
    await load()
  })
}
const removeName = (id: string): Promise<void> =>
  attempt(async () => {
    await request(`/versions/${id}`, { method: 'DELETE' })
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
const first = ref<string | null>(null)
const compared = shallowRef<{ readonly a: string; readonly b: string; readonly words: readonly string[] } | null>(null)
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
          class="filter"
          :placeholder="text.filter"
          :aria-label="text.filter"
        />
        <span class="quiet lead">{{ text.lead }}</span>
        <button
          :data-tip="text.gridTip"
          type="button"
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
      <section
        v-if="compared"
        class="compared"
        data-testid="compared"
      >
        <p>
          <strong>{{ text.between(nameOf(compared.a), nameOf(compared.b)) }}</strong>
          {{ ' ' }}
          <button
            type="button"
            @click="compared = null"
          >
            {{ text.endCompare }}
          </button>
        </p>
        <div class="pair">
          <img
            :src="still(compared.a)"
            :alt="nameOf(compared.a)"
          />
          <img
            :src="still(compared.b)"
            :alt="nameOf(compared.b)"
          />
          <ul>
            <li
              v-for="w in compared.words"
              :key="w"
              class="figures"
            >
              {{ w }}
            </li>
            <li v-if="compared.words.length === 0">{{ text.same }}</li>
          </ul>
        </div>
      </section>
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
        <section
          class="versions"
          :aria-label="text.versions"
        >
          <h2 class="caps">{{ text.versions }}</h2>
          <p
            v-if="record && record.versions.length === 0"
            class="quiet"
          >
            {{ text.noVersions }}
          </p>
          <div
            v-for="v in record?.versions ?? []"
            :key="v.id"
            class="version"
            :data-version="v.name"
          >
            <img
              :src="still(v.revisionId)"
              :alt="v.name"
              loading="lazy"
            />
            <span>
              {{ v.name }}
              <span class="quiet small">
                {{ nameOf(v.revisionId) === v.name ? '' : nameOf(v.revisionId) }} {{ time(v.at) }}
              </span>
            </span>
            <span class="tools">
              <button
                type="button"
                :disabled="v.revisionId === record?.headId"
                @click="goBack(v.revisionId)"
              >
                {{ text.back }}
              </button>
              <button
                type="button"
                @click="removeName(v.id)"
              >
                {{ text.remove }}
              </button>
            </span>
          </div>
        </section>
        <ol
          class="entries"
          tabindex="-1"
        >
          <li
            v-for="r in shown"
            :key="r.id"
            :class="{ here: r.id === record?.headId, off: !path.on.has(r.id) }"
            :data-revision="r.depth"
          >
            <img
              :src="still(r.id)"
              :alt="text.still(r.depth)"
              loading="lazy"
              width="96"
              height="54"
            />
            <div class="what">
              <p>
                <span class="figures quiet">{{ r.depth }}</span>
                {{ ' ' }}
                <strong>{{ r.summary }}</strong>
                {{ ' ' }}
                <span
                  v-for="n in versionNames.get(r.id) ?? []"
                  :key="n"
                  class="tag"
                >
                  {{ n }}
                </span>
                <span
                  v-if="place(r)"
                  class="quiet small"
                >
                  {{ place(r) }}
                </span>
              </p>
              <p
                v-if="r.changes.length"
                class="figures small"
              >
                {{ r.changes.join(' · ') }}
              </p>
              <p class="quiet small">{{ time(r.at) }} · {{ r.actor }} · {{ reasonOf(r) }}</p>
            </div>
            <form
              v-if="naming === r.id"
              @submit.prevent="giveName(r.id)"
            >
              <input
                v-model="name"
                maxlength="60"
                :placeholder="text.namePlaceholder"
                :aria-label="text.namePlaceholder"
                autofocus
              />
              <button
                type="submit"
                :disabled="name.trim() === ''"
              >
                {{ text.keep }}
              </button>
              <button
                type="button"
                @click="naming = null"
              >
                {{ text.cancel }}
              </button>
            </form>
            <div
              v-else
              class="tools"
            >
              <button
                :data-tip="text.nameTip"
                type="button"
                @click="naming = r.id"
              >
                {{ text.name }}
              </button>
              <button
                :data-tip="text.compareTip"
                type="button"
                :aria-pressed="first === r.id"
                @click="choose(r.id)"
              >
                {{ first === r.id ? text.comparing(r.depth) : text.compare }}
              </button>
              <button
                :data-tip="text.backTip"
                type="button"
                :disabled="r.id === record?.headId"
                @click="goBack(r.id)"
              >
                {{ text.back }}
              </button>
            </div>
          </li>
          <li
            v-if="record && shown.length === 0"
            class="quiet"
          >
            {{ text.none }}
          </li>
        </ol>
      </div>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template: auto 1fr / minmax(0, 1fr);
  overflow: hidden;
}
.record {
  min-height: 0;
  display: flex;
  flex-direction: column;
  gap: var(--gap);
  padding: var(--gap) var(--gap-wide) 0;
}
.top {
  display: flex;
  align-items: center;
  gap: var(--gap-wide);
  min-height: 40px;
}
.lead {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h1 {
  font-size: var(--text-title);
}
.filter {
  width: 180px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 3px var(--gap);
}
.body {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: var(--gap-wide);
}
.versions,
.entries {
  overflow: auto;
  min-height: 0;
  margin: 0;
  padding: 0;
}
h2 {
  color: var(--ink-quiet);
  font-weight: 400;
}
.version {
  display: grid;
  grid-template-columns: 72px 1fr;
  gap: var(--gap);
  padding: var(--gap) 0;
  border-bottom: var(--line) solid var(--hairline);
  align-items: center;
}
.version img {
  width: 72px;
  background: var(--well);
}
.version .tools {
  grid-column: 1 / -1;
}
.entries {
  list-style: none;
}
.entries li {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) auto;
  gap: var(--gap-wide);
  align-items: center;
  padding: var(--gap) var(--gap);
  border-bottom: var(--line) solid var(--hairline);
}
.entries li.here {
  box-shadow: inset 2px 0 0 var(--accent);
  background: var(--veil);
}
.entries li.off img {
  opacity: 0.6;
}
img {
  display: block;
  object-fit: contain;
  background: var(--well);
}
p {
  margin: 0;
}
strong {
  font-weight: 500;
}
.small {
  font-size: 11px;
}
.version .small {
  display: block;
}
.tag {
  border: var(--line) solid var(--accent);
  border-radius: var(--radius);
  padding: 0 6px;
  font-size: 11px;
  color: var(--accent);
}
.tools,
form {
  display: flex;
  gap: var(--gap-small);
  flex-wrap: wrap;
}
button,
.button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 2px 8px;
  min-height: var(--control);
  font-size: 12px;
  text-decoration: none;
}
button:hover:enabled,
.button:hover {
  border-color: var(--accent);
}
button:disabled {
  color: var(--ink-quiet);
}
[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
form input {
  width: 150px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 var(--gap-small);
}
.compared {
  border: var(--line) solid var(--hairline-strong);
  background: var(--panel);
  padding: var(--gap);
}
.pair {
  display: grid;
  grid-template-columns: 240px 240px 1fr;
  gap: var(--gap-wide);
  margin-top: var(--gap);
}
.pair img {
  width: 240px;
  height: 135px;
}
.pair ul {
  margin: 0;
  padding: 0 0 0 16px;
  max-height: 135px;
  overflow: auto;
  font-size: 12px;
}
</style>
