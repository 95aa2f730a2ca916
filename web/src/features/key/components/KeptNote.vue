<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { ChangeList } from '@/study-kernel';

/** When a key was kept, and how it stands to the study as it is now. */
const props = defineProps<{ kept: Schemas['NamedKey']; editable: boolean }>();
const emit = defineEmits<{ update: [] }>();
const standing = computed(() => props.kept.line.standing);
</script>

<template>
  <section class="note" :class="{ old: !standing.current }" :aria-label="kept.line.name">
    <p role="status">
      <strong>{{ kept.line.name }}</strong>
      {{ $t('namedKeys.keptBy', { who: kept.line.who, on: kept.line.at.slice(0, 10) }) }}
      <template v-if="standing.current">{{ $t('namedKeys.current') }}</template>
      <template v-else>
        <strong>{{ $t('namedKeys.outOfDate') }}</strong>
        {{ $t(standing.proven ? 'namedKeys.stillProven' : 'namedKeys.noLongerProven') }}
      </template>
    </p>
    <template v-if="!standing.current">
      <v-btn v-if="editable" size="small" @click="emit('update')">{{ $t('namedKeys.update') }}</v-btn>
      <details>
        <summary>{{ $t('namedKeys.whatChanged') }}</summary>
        <p v-if="!kept.changes.total">{{ $t('namedKeys.leavesOutOtherTaxa') }}</p>
        <ChangeList v-else :changes="kept.changes.changes" :total="kept.changes.total" />
        <template v-if="kept.failures.length">
          <h3>{{ $t('namedKeys.failures') }}</h3>
          <ul>
            <li v-for="failure in kept.failures" :key="failure">{{ failure }}</li>
          </ul>
        </template>
      </details>
    </template>
  </section>
</template>

<style scoped>
.note {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 1rem;
  margin: 0.35rem 1rem;
  padding: 0.4rem 0.75rem;
  border-left: 3px solid var(--rule);
}

.note.old {
  border-left-color: rgb(var(--v-theme-error));
}

.note p {
  margin: 0;
}

details {
  flex-basis: 100%;
}
</style>
