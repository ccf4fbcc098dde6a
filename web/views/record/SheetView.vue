<!-- Long: one printed sheet, read from top to bottom. -->

<script setup lang="ts">
// The grade sheet: a page to print, of one shot or of a whole project.
import { ref, shallowRef, watch } from 'vue'
import type { GradeSheet, ShotSheet } from '@contracts/responses'
import { request, sentenceOf } from '../../api/client'
import { thumbnailAddress } from '../../api/thumbnail'
import Notice from '../../components/Notice.vue'
import { sheetText as text } from './sheet-text'

const props = defineProps<{ of: 'shots' | 'projects'; id: string }>()
const sheet = shallowRef<GradeSheet | null>(null)
const fault = ref('')
watch(
  () => [props.of, props.id],
  async () => {
    sheet.value = null
    try {
      sheet.value = await request<GradeSheet>(`/${props.of}/${encodeURIComponent(props.id)}/sheet.json`)
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  },
  { immediate: true },
)
const still = (s: ShotSheet, revisionId: string, as: 'shot' | 'graded'): string =>
  thumbnailAddress({ ...s, revisionId, frame: s.stillFrame, as })
const time = (at: string): string => new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const print = (): void => window.print()
</script>

<template>
  <div class="paper">
    <nav class="bar">
      <RouterLink
        v-if="of === 'shots'"
        :to="{ name: 'record', params: { shotId: id } }"
      >
        ‹ {{ text.back }}
      </RouterLink>
      <RouterLink
        v-else
        :to="{ name: 'reel', params: { projectId: id } }"
      >
        ‹ {{ text.backReel }}
      </RouterLink>
      <span class="space" />
      <button
        type="button"
        @click="print"
      >
        {{ text.print }}
      </button>
      <a
        :href="`/api/${of}/${id}/sheet.csv`"
        download
      >
        CSV
      </a>
      <a
        :href="`/api/${of}/${id}/sheet.json`"
        download="grade-sheet.json"
      >
        JSON
      </a>
    </nav>
    <Notice
      :text="fault"
      @close="fault = ''"
    />
    <p
      v-if="!sheet && !fault"
      role="status"
    >
      {{ text.measuring }}
    </p>
    <main v-if="sheet">
      <h1>{{ text.title(sheet.project) }}</h1>
      <p class="small">{{ text.made(time(sheet.made), sheet.shots.length) }}</p>
      <article
        v-for="s in sheet.shots"
        :key="s.id"
        :data-sheet="s.name"
      >
        <h2>{{ s.name }}</h2>
        <div class="stills">
          <figure>
            <img
              :src="still(s, s.headId, 'shot')"
              :alt="text.asShot"
            />
            <figcaption>{{ text.asShot }}</figcaption>
          </figure>
          <figure>
            <img
              :src="still(s, s.headId, 'graded')"
              :alt="text.graded"
            />
            <figcaption>{{ text.graded }}</figcaption>
          </figure>
          <dl>
            <template v-if="s.scene">
              <dt>{{ text.scene }}</dt>
              <dd>{{ s.scene }}</dd>
            </template>
            <dt>{{ text.camera }}</dt>
            <dd>{{ s.camera ?? '–' }}</dd>
            <dt>{{ text.source }}</dt>
            <dd>{{ s.source }}</dd>
            <dt>{{ text.frames }}</dt>
            <dd>{{ text.lead(s.leadFrame, s.frameCount) }}</dd>
            <dt>{{ text.encoding }}</dt>
            <dd>{{ s.encoding }}</dd>
            <dt>{{ text.display }}</dt>
            <dd>{{ s.display }}</dd>
            <dt>{{ text.standard }}</dt>
            <dd>{{ s.standard }}</dd>
          </dl>
        </div>
        <p
          v-if="s.evidence.length"
          class="small"
        >
          {{ text.evidence }} {{ s.evidence.join(' ') }}
        </p>
        <div class="columns">
          <section>
            <h3>{{ text.controls }}</h3>
            <p
              v-if="s.controls.length === 0"
              class="small"
            >
              {{ text.untouched }}
            </p>
            <table v-else>
              <tbody>
                <tr
                  v-for="(c, i) in s.controls"
                  :key="i"
                >
                  <td>{{ c.step }}</td>
                  <td class="figures">{{ c.words }}</td>
                </tr>
              </tbody>
            </table>
            <template v-if="s.aims.length">
              <h3>{{ text.aims }}</h3>
              <ul>
                <li
                  v-for="a in s.aims"
                  :key="a"
                >
                  {{ a }}
                </li>
              </ul>
            </template>
          </section>
          <section>
            <h3>{{ text.readings }}</h3>
            <table>
              <thead>
                <tr>
                  <th>{{ text.reading }}</th>
                  <th>{{ text.before }}</th>
                  <th>{{ text.after }}</th>
                  <th>{{ text.target }}</th>
                  <th>
                    <span class="visually-hidden">{{ text.verdict }}</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                <tr
                  v-for="r in s.readings"
                  :key="r.name"
                >
                  <td>{{ r.name }}</td>
                  <td class="figures">{{ r.before ?? '–' }}</td>
                  <td class="figures">{{ r.after ?? '–' }} {{ r.unit }}</td>
                  <td class="figures">{{ r.target }}</td>
                  <td>
                    {{
                      r.waived
                        ? text.waived(r.waived)
                        : r.verdict === 'met'
                          ? text.met
                          : r.verdict
                            ? `▲ ${r.verdict}`
                            : ''
                    }}
                  </td>
                </tr>
              </tbody>
            </table>
          </section>
        </div>
        <section>
          <h3>{{ text.record }}</h3>
          <table>
            <tbody>
              <tr
                v-for="r in s.record"
                :key="r.depth"
              >
                <td class="figures">{{ r.depth }}</td>
                <td>{{ time(r.at) }}</td>
                <td>{{ r.actor }}</td>
                <td>{{ r.summary }}</td>
                <td class="figures">{{ r.changes.join('; ') }}</td>
              </tr>
            </tbody>
          </table>
        </section>
      </article>
    </main>
  </div>
</template>

<style scoped>
.paper {
  min-height: 100%;
  height: 100%;
  overflow: auto;
  background: #fff;
  color: #111;
  padding: var(--gap-broad);
  font-size: 12px;
}
.bar {
  display: flex;
  gap: var(--gap-wide);
  align-items: center;
}
.space {
  flex: 1;
}
.bar button,
.bar a {
  color: #111;
  background: none;
  border: 1px solid #777;
  border-radius: var(--radius);
  padding: 2px 10px;
  min-height: var(--control);
  text-decoration: none;
}
main,
article {
  max-width: 1000px;
  margin: 0 auto;
}
h1 {
  font-size: 20px;
}
h2 {
  font-size: 16px;
  border-top: 2px solid #111;
  padding-top: var(--gap);
  margin-top: var(--gap-broad);
}
h3 {
  font-size: 12px;
  margin: var(--gap-wide) 0 var(--gap-small);
}
.small {
  font-size: 11px;
  color: #444;
}
.stills {
  display: grid;
  grid-template-columns: 260px 260px 1fr;
  gap: var(--gap-wide);
  margin: var(--gap) 0;
}
figure {
  margin: 0;
}
img {
  width: 260px;
  height: 146px;
  object-fit: contain;
  background: #222;
  display: block;
}
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 2px var(--gap);
  margin: 0;
  align-content: start;
}
dt {
  color: #444;
}
dd {
  margin: 0;
}
.columns {
  display: grid;
  grid-template-columns: 1fr 1.3fr;
  gap: var(--gap-broad);
}
table {
  border-collapse: collapse;
  width: 100%;
}
td,
th {
  text-align: left;
  vertical-align: top;
  border-bottom: 1px solid #ccc;
  padding: 2px 8px 2px 0;
  font-weight: 400;
}
th {
  color: #444;
}
ul {
  margin: 0;
  padding-left: 16px;
}
@media print {
  .bar {
    display: none;
  }
  .paper {
    height: auto;
    overflow: visible;
    padding: 0;
  }
  article {
    break-inside: avoid;
  }
}
</style>
