<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import type { Correction } from '../composables/useImport';
import { factOf } from '../logic/facts';

/** Cells of an upload that could not be read, each text of a column once, to be corrected without the file. */
const props = defineProps<{ cells: Schemas['UnreadCell'][]; total: number; busy: boolean }>();
const emit = defineEmits<{ correct: [corrections: Correction[]] }>();
const { t } = useI18n();

interface Group {
  key: string;
  cells: Schemas['UnreadCell'][];
  first: Schemas['UnreadCell'];
  /** Taxon that the correction is of; empty: all of the column. */
  row: string;
}

/** What was typed for each group, and null for those that are unknown. */
const typed = ref<Record<string, string | null>>({});
/** Groups whose cells are corrected one by one. */
const apart = ref(new Set<string>());
const keyOf = (c: Schemas['UnreadCell']) => JSON.stringify([c.heading, c.text]);

const groups = computed(() => {
  const found = new Map<string, Group>();
  for (const cell of props.cells) {
    const alike = keyOf(cell);
    const key = apart.value.has(alike) ? JSON.stringify([cell.heading, cell.text, cell.row]) : alike;
    const group = found.get(key);
    if (group) group.cells.push(cell);
    else found.set(key, { key, cells: [cell], first: cell, row: apart.value.has(alike) ? cell.row : '' });
  }
  return [...found.values()];
});
const answered = computed(() => groups.value.filter((g) => typed.value[g.key] === null || typed.value[g.key]?.trim()));
const cellsOf = (some: Group[]) => some.reduce((n, g) => n + g.cells.length, 0);
const others = computed(() => groups.value.filter((g) => !answered.value.includes(g)));

watch(
  () => props.cells,
  () => (typed.value = {}),
);

function divide(group: Group, on: boolean) {
  const next = new Set(apart.value);
  if (on) next.add(keyOf(group.first));
  else next.delete(keyOf(group.first));
  apart.value = next;
}

const correction = (group: Group, as: string | null): Correction => ({
  column: group.first.heading,
  row: group.row,
  text: group.first.text,
  as,
});

function send(some: Group[]) {
  emit(
    'correct',
    some.map((g) => correction(g, typed.value[g.key]?.trim() || null)),
  );
}
</script>

<template>
  <section aria-labelledby="unread">
    <h2 id="unread">{{ $t('import.unread', total) }}</h2>
    <p>{{ $t('import.unreadLead') }}</p>
    <p v-if="total > cells.length">{{ $t('import.unreadMore', { n: cells.length }) }}</p>
    <form @submit.prevent="send(answered)">
      <ul class="cells">
        <li v-for="group in groups" :key="group.key">
          <div class="text">
            <strong>{{ factOf(t, group.first.heading) }}</strong>
            <span class="quiet figures">{{
              group.cells.length === 1
                ? `${group.first.row} · ${$t('import.row', { row: group.first.line, column: group.first.column })}`
                : $t('import.cellsAlike', group.cells.length)
            }}</span>
            <span>{{ group.first.reason }}</span>
          </div>
          <div class="answer">
            <v-text-field
              :model-value="typed[group.key] ?? ''"
              :label="$t('import.meant', { text: group.first.text, heading: factOf(t, group.first.heading) })"
              :placeholder="typed[group.key] === null ? $t('import.unknownShort') : group.first.text"
              persistent-placeholder
              density="compact"
              hide-details
              spellcheck="false"
              @update:model-value="typed[group.key] = $event"
            />
            <v-btn
              v-for="near in group.first.nearest"
              :key="near"
              size="small"
              variant="outlined"
              @click="typed[group.key] = near"
              >{{ near }}</v-btn
            >
            <v-btn
              size="small"
              variant="text"
              :aria-pressed="typed[group.key] === null"
              @click="typed[group.key] = null"
              >{{ $t('import.unknown') }}</v-btn
            >
            <v-btn
              v-if="group.cells.length > 1 || group.row"
              size="small"
              variant="text"
              @click="divide(group, !group.row)"
              >{{ $t(group.row ? 'import.together' : 'import.apart') }}</v-btn
            >
          </div>
        </li>
      </ul>
      <div class="send">
        <v-btn type="submit" color="primary" variant="flat" :disabled="!answered.length" :loading="busy">{{
          $t('import.correct', cellsOf(answered))
        }}</v-btn>
        <v-btn v-if="others.length" :loading="busy" @click="send(groups)">{{
          $t('import.takeUnknown', cellsOf(others))
        }}</v-btn>
      </div>
    </form>
  </section>
</template>

<style scoped>
section {
  border-top: 2px solid rgb(var(--v-theme-error));
  margin-top: 1.5rem;
  padding-top: 1rem;
}

.cells {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 34rem;
  overflow: auto;
}

.cells li {
  display: grid;
  grid-template-columns: minmax(14rem, 2fr) 3fr;
  gap: 0.5rem 1.5rem;
  align-items: center;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--rule);
}

.text {
  display: grid;
}

.answer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}

.answer > :first-child {
  flex: 1 1 16rem;
}

.send {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  margin: 1rem 0;
}

@media (max-width: 800px) {
  .cells li {
    grid-template-columns: 1fr;
  }
}
</style>
