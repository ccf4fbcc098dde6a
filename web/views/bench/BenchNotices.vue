<script setup lang="ts">
// What went wrong on the Bench, and what has to be decided where two hands met.
import Notice from '../../components/Notice.vue'
import { useGrade } from '../../stores/grade'
import { useBench } from './session/bench'
import { text } from './text'

const { fault, setupCheck } = useBench()
const { worst } = setupCheck
const grade = useGrade()
const forkNow = (): Promise<void> => grade.fork(text.conflict.versionName(new Date().toLocaleTimeString('en-GB')))
</script>

<template>
  <div class="notices">
    <Notice
      :text="fault"
      @close="fault = ''"
    />
    <Notice
      v-if="worst"
      :text="text.setup.worst(worst.shot.name, worst.reading.sentence)"
      data-testid="setup-worst"
      @close="setupCheck.close"
    >
      <RouterLink :to="{ name: 'bench', params: { shotId: worst.shot.id } }">{{ text.setup.open }}</RouterLink>
    </Notice>
    <Notice
      v-if="grade.saveState !== 'saved' || grade.message"
      :text="grade.message"
      @close="grade.dismiss"
    >
      <template v-if="grade.saveState === 'conflict'">
        <span
          v-if="grade.clash"
          class="clash"
        >
          {{ text.conflict.theirs(grade.clash.theirs.join('; ')) }}
          {{ grade.clash.both.length ? text.conflict.both(grade.clash.both.join('; ')) : '' }}
        </span>
        <button
          type="button"
          class="button"
          @click="grade.takeNewer"
        >
          {{ text.conflict.take }}
        </button>
        <button
          type="button"
          class="button"
          @click="grade.mergeBoth"
        >
          {{ text.conflict.merge }}
        </button>
        <button
          type="button"
          class="button"
          @click="grade.keepMine"
        >
          {{ text.conflict.keep }}
        </button>
        <button
          type="button"
          class="button"
          @click="forkNow"
        >
          {{ text.conflict.fork }}
        </button>
      </template>
    </Notice>
  </div>
</template>

<style scoped>
.notices {
  display: grid;
}
.clash {
  font-size: 12px;
  max-width: 520px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
