<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';

/** Twelve months of a pair: a filled box where it is firmly separated, a ring where thinly, a struck one where it is open. */
const props = defineProps<{ firm: number[]; thin: number[] }>();
const { t } = useI18n();
const kind = (month: number) => (props.firm.includes(month) ? 'firm' : props.thin.includes(month) ? 'thin' : 'open');
const months = (wanted: string) =>
  Array.from({ length: 12 }, (_, i) => i + 1)
    .filter((m) => kind(m) === wanted)
    .map((m) => t(`month.${m}`));
const says = computed(() =>
  ['firm', 'thin', 'open']
    .map((k) => ({ k, of: months(k) }))
    .filter(({ of }) => of.length)
    .map(({ k, of }) => t(`apart.year.${k}`, { months: of.length === 12 ? t('apart.allYear') : of.join(', ') }))
    .join(' '),
);
</script>

<template>
  <svg class="year" viewBox="0 0 132 22" role="img" :aria-label="says">
    <title>{{ says }}</title>
    <g v-for="month in 12" :key="month" :transform="`translate(${(month - 1) * 11 + 5.5} 0)`">
      <rect x="-4.2" y="1" width="8.4" height="10" :class="kind(month)" />
      <circle v-if="kind(month) === 'thin'" cx="0" cy="6" r="2.4" class="ring" />
      <path v-if="kind(month) === 'open'" d="M-3 3 3 9M3 3-3 9" class="ring" />
      <text y="20" text-anchor="middle">{{ $t(`month.${month}`).slice(0, 1) }}</text>
    </g>
  </svg>
</template>

<style scoped>
.year {
  width: 9.5rem;
  height: 1.6rem;
}

rect {
  stroke: currentcolor;
  stroke-width: 0.6;
  fill: none;
}

rect.firm {
  fill: rgb(var(--v-theme-primary));
}

.ring {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1;
}

rect.open,
rect.open ~ .ring {
  stroke: rgb(var(--v-theme-error));
}

text {
  font-size: 8px;
  fill: currentcolor;
}
</style>
