<script setup lang="ts">
/** The twelve months as a ring, each a switch; in the middle, the whole year. */
const months = defineModel<number[]>({ required: true });

const place = (month: number) => {
  const angle = ((month - 1) / 12) * 2 * Math.PI - Math.PI / 2;
  return { left: `${50 + 41 * Math.cos(angle)}%`, top: `${50 + 41 * Math.sin(angle)}%` };
};

function toggle(month: number) {
  months.value = months.value.includes(month)
    ? months.value.filter((m) => m !== month)
    : [...months.value, month].sort((a, b) => a - b);
}
</script>

<template>
  <div class="ring" role="group" :aria-label="$t('apart.months')">
    <button
      v-for="month in 12"
      :key="month"
      type="button"
      class="month"
      :class="{ on: months.includes(month) }"
      :style="place(month)"
      :aria-pressed="months.includes(month)"
      :aria-label="$t(`month.${month}`)"
      :title="$t(`month.${month}`)"
      @click="toggle(month)"
    >
      {{ $t(`month.${month}`).slice(0, 1) }}
    </button>
    <button type="button" class="year" :aria-pressed="!months.length" @click="months = []">
      {{ $t('apart.anyMonth') }}
    </button>
  </div>
</template>

<style scoped>
.ring {
  position: relative;
  width: 9.4rem;
  height: 9.4rem;
  margin: 0.2rem auto 0.5rem;
}

.ring::before {
  content: '';
  position: absolute;
  inset: 9%;
  border: 1px solid var(--rule);
  border-radius: 50%;
}

.month {
  position: absolute;
  width: 1.75rem;
  height: 1.75rem;
  transform: translate(-50%, -50%);
  border: 1px solid var(--rule);
  border-radius: 50%;
  background: rgb(var(--v-theme-surface));
  font-size: 0.85rem;
}

.month.on {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
  font-weight: 700;
}

.year {
  position: absolute;
  inset: 34%;
  border-radius: 50%;
  font-size: 0.82rem;
  line-height: 1.1;
}

.year[aria-pressed='true'] {
  font-weight: 700;
  text-decoration: underline;
}
</style>
