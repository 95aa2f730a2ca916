<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { api } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { rowName } from '@/shared/taxon/rowNames';
import { asked, type ViewingConditions } from '@/shared/viewing/conditions';
import YearStrip from './YearStrip.vue';

/** When the year lets rows be told: how many pairs each month, and for each weak pair what to check next and when. */
const props = defineProps<{ rows: string[]; conditions: ViewingConditions }>();
const emit = defineEmits<{ choose: [pair: [string, string]]; month: [month: number] }>();
const model = useStudy();
const { t } = useI18n();
const wanted = computed(() => asked({ ...props.conditions, months: [] }, { rows: props.rows }));
const query = useQuery({
  queryKey: computed(() => ['calendar', model.slug, wanted.value, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/apart/calendar', { slug: model.slug, ...wanted.value }),
  placeholderData: (old) => old,
  retry: false,
});
const calendar = computed(() => query.data.value);
const name = (id: string) => {
  const row = model.study.value?.rows.find((r) => r.id === id);
  return row ? rowName(row) : id;
};
const subject = computed(() =>
  props.rows.length === 1
    ? t('apart.ofRow', { name: name(props.rows[0] ?? '') })
    : props.rows.length
      ? t('apart.ofGroup', { names: props.rows.map(name).join('; ') })
      : t('apart.ofAll'),
);
const BAR = 90;
const worst = computed(() => Math.max(1, ...(calendar.value?.months ?? []).map((m) => m.open + m.thin)));
const tall = (n: number) => `${(BAR * n) / worst.value}px`;
</script>

<template>
  <div class="calendar">
    <ProblemNote :problem="query.error.value" />
    <v-progress-linear v-if="!calendar && query.isFetching.value" indeterminate :aria-label="$t('loading')" />
    <template v-if="calendar">
      <h2>{{ subject }}</h2>
      <p class="figures">{{ $t('apart.calendarSays', { n: calendar.count }, calendar.count) }}</p>
      <div v-if="calendar.count > 1" class="months" role="list" :aria-label="$t('apart.months')">
        <div v-for="(month, i) in calendar.months" :key="i" role="listitem" class="month">
          <div class="bars" :style="{ height: `${BAR}px` }" aria-hidden="true">
            <span class="thin" :style="{ height: tall(month.thin) }" />
            <span class="open" :style="{ height: tall(month.open) }" />
          </div>
          <button
            type="button"
            :aria-pressed="conditions.months.includes(i + 1)"
            :class="{ on: conditions.months.includes(i + 1) }"
            @click="emit('month', i + 1)"
          >
            {{ $t(`month.${i + 1}`).slice(0, 3) }}
          </button>
          <span class="figures small"
            >{{ month.open }}<span class="sr-only">{{ $t('apart.openPairs') }}</span> + {{ month.thin
            }}<span class="sr-only">{{ $t('apart.thinPairs') }}</span></span
          >
        </div>
      </div>
      <p v-if="calendar.count > 1" class="quiet">{{ $t('apart.calendarKey') }}</p>
      <table v-if="calendar.pairs.length">
        <thead>
          <tr>
            <th scope="col">{{ $t('apart.pair') }}</th>
            <th scope="col">{{ $t('apart.months') }}</th>
            <th scope="col">{{ $t('apart.checkNext') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="pair in calendar.pairs" :key="`${pair.first} ${pair.second}`">
            <td>
              <button type="button" class="pair" @click="emit('choose', [pair.first, pair.second])">
                {{ name(pair.first) }} / {{ name(pair.second) }}
              </button>
            </td>
            <td><YearStrip :firm="pair.firm" :thin="pair.thin" /></td>
            <td>{{ pair.next }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else>{{ $t('apart.allFirm') }}</p>
      <p v-if="calendar.more" class="figures">{{ $t('apart.morePairs', calendar.more) }}</p>
    </template>
  </div>
</template>

<style scoped>
.calendar {
  overflow: auto;
  padding: 0.6rem 0.8rem 2rem;
}

.months {
  display: grid;
  grid-template-columns: repeat(12, minmax(2.4rem, 1fr));
  gap: 0.3rem;
  max-width: 46rem;
  overflow-x: auto;
}

.month {
  display: grid;
  justify-items: center;
}

.bars {
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
  width: 70%;
}

.thin {
  border: 1px solid var(--faint);
}

.open {
  background: rgb(var(--v-theme-error));
}

.thin[style*='height: 0px'] {
  border: 0;
}

.month button {
  min-height: 1.6rem;
  padding: 0 0.3rem;
}

.month .on {
  font-weight: 700;
  text-decoration: underline;
}

.small {
  font-size: 0.82rem;
}

table {
  width: 100%;
  margin-top: 0.8rem;
  border-collapse: collapse;
}

th,
td {
  padding: 0.35rem 0.7rem 0.35rem 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
}

.pair {
  text-align: left;
  font-style: italic;
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}
</style>
