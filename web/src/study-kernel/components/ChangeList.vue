<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';

/** What differs between two states of a study, object by object. */
const props = defineProps<{ changes: Schemas['Change'][]; total: number }>();
const groups = computed(() => {
  const kinds = [...new Set(props.changes.map((c) => c.kind))];
  return kinds.map((kind) => ({ kind, members: props.changes.filter((c) => c.kind === kind) }));
});
</script>

<template>
  <div class="figures">
    <p>{{ $t('difference.total', { n: total }, total) }}</p>
    <section v-for="group in groups" :key="group.kind">
      <h3>{{ $t(`difference.kind.${group.kind}`) }}</h3>
      <ul>
        <li v-for="change in group.members" :key="change.id + change.character">
          <span class="how" :class="change.how">{{ $t(`difference.how.${change.how}`) }}</span>
          <span class="name">{{ change.name }}</span>
          <span v-for="f in change.fields" :key="f.name" class="field">
            <span class="quiet">{{ $t(`difference.field.${f.name}`) }}</span>
            <del v-if="f.before">{{ f.before }}</del>
            <span aria-hidden="true"> → </span>
            <ins>{{ f.after || $t('difference.nothing') }}</ins>
          </span>
        </li>
      </ul>
    </section>
    <p v-if="total > changes.length" class="quiet">{{ $t('difference.more', { n: total - changes.length }) }}</p>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.15rem 0.8rem;
  padding: 0.25rem 0;
  border-bottom: 1px solid var(--rule);
}

.how {
  min-width: 4.6rem;
  font-weight: 600;
}

.how.REMOVED {
  color: rgb(var(--v-theme-error));
}

.how.ADDED {
  color: rgb(var(--v-theme-success));
}

.name {
  font-family: var(--serif);
}

.field {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.5rem;
  flex-basis: 100%;
  padding-left: 5.4rem;
}

ins {
  text-decoration: none;
  font-weight: 600;
}
</style>
