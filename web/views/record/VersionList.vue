<script setup lang="ts">
// The versions of a shot: revisions that somebody gave a name.
import type { ShotRecord } from '@contracts/responses'
import EmptyState from '../../components/EmptyState.vue'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { text, timeOf } from './text'

defineProps<{ record: ShotRecord; nameOf: (id: string) => string; still: (revisionId: string) => string }>()
const emit = defineEmits<{ back: [revisionId: string]; remove: [versionId: string]; name: [] }>()
</script>

<template>
  <section
    class="versions"
    :aria-label="text.versions"
  >
    <h2 class="caps">{{ text.versions }}</h2>
    <EmptyState
      v-if="record.versions.length === 0"
      :hint="text.noVersions"
    >
      <button
        type="button"
        class="button"
        @click="emit('name')"
      >
        {{ text.nameThis }}
      </button>
    </EmptyState>
    <div
      v-for="v in record.versions"
      :key="v.id"
      class="version"
      :data-version="v.name"
    >
      <PictureInTurn
        :src="still(v.revisionId)"
        :alt="v.name"
      />
      <span>
        {{ v.name }}
        <span class="quiet small">
          {{ nameOf(v.revisionId) === v.name ? '' : nameOf(v.revisionId) }} {{ timeOf(v.at) }}
        </span>
      </span>
      <span class="tools">
        <button
          type="button"
          class="button"
          :disabled="v.revisionId === record.headId"
          @click="emit('back', v.revisionId)"
        >
          {{ text.back }}
        </button>
        <button
          type="button"
          class="button"
          @click="emit('remove', v.id)"
        >
          {{ text.remove }}
        </button>
      </span>
    </div>
  </section>
</template>

<style scoped src="./record.css"></style>
