<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';

/** The months of a year side by side: a press takes one in or out, drawing over several does so with all of them. */
const months = defineModel<number[]>({ required: true });
/** @property none what it means that no month is taken in; all year, if nothing else is said */
const props = defineProps<{ label: string; none?: string; readonly?: boolean }>();
const ALL = Array.from({ length: 12 }, (_, i) => i + 1);
/** Where drawing began, what was there before, and whether it takes in or out. */
const drawing = ref<{ from: number; before: Set<number>; takes: boolean } | null>(null);
const there = computed(() => new Set(months.value));

function begin(month: number) {
  if (props.readonly) return;
  drawing.value = { from: month, before: new Set(months.value), takes: !there.value.has(month) };
  drawTo(month);
}

function drawTo(month: number) {
  const of = drawing.value;
  if (!of) return;
  const now = new Set(of.before);
  for (let m = Math.min(of.from, month); m <= Math.max(of.from, month); m++) {
    if (of.takes) now.add(m);
    else now.delete(m);
  }
  months.value = [...now].sort((a, b) => a - b);
}

/** By keyboard, and by whatever presses without pointing. */
function press(event: MouseEvent, month: number) {
  if (event.detail !== 0 || props.readonly) return;
  begin(month);
  drawing.value = null;
}

useEventListener(window, 'pointerup', () => (drawing.value = null));
</script>

<template>
  <fieldset>
    <legend>{{ label }}</legend>
    <div class="band">
      <button
        v-for="month in ALL"
        :key="month"
        type="button"
        :aria-pressed="there.has(month)"
        :aria-label="$t(`month.${month}`)"
        :disabled="readonly"
        @pointerdown="begin(month)"
        @pointerenter="drawTo(month)"
        @click="press($event, month)"
      >
        {{ $t(`month.${month}`).slice(0, 3) }}
      </button>
    </div>
    <p class="quiet">
      {{ months.length === 12 ? $t('months.allYear') : months.length ? '' : (none ?? $t('months.allYear')) }}
      <button v-if="months.length && !readonly" type="button" class="all" @click="months = []">
        {{ none ?? $t('months.clear') }}
      </button>
    </p>
  </fieldset>
</template>

<style scoped>
fieldset {
  min-width: 0;
  border: 0;
  padding: 0;
}

legend {
  font-size: 0.85rem;
  color: var(--faint);
}

.band {
  display: grid;
  grid-template-columns: repeat(12, minmax(0, 1fr));
  border: 1px solid var(--rule);
  touch-action: none;
}

.band button {
  min-height: 2.1rem;
  font-size: 0.8rem;
  border-right: 1px solid var(--rule);
  user-select: none;
}

.band button:last-child {
  border-right: 0;
}

.band button[aria-pressed='true'] {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
  font-weight: 600;
}

p {
  display: flex;
  justify-content: space-between;
  min-height: 1.4rem;
  margin: 0.1rem 0 0;
  font-size: 0.85rem;
}

.all {
  margin-left: auto;
  text-decoration: underline;
}

@media (max-width: 500px) {
  .band {
    grid-template-columns: repeat(6, minmax(0, 1fr));
  }
}
</style>
