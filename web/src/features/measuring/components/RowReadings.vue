<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import { rowName } from '@/shared/taxon/rowNames';
import DotPlot from './DotPlot.vue';

/** The readings of a row beside its lookalikes, what they come to, and where to cut against another row. */
const props = defineProps<{
  measured: Schemas['MeasuredView'];
  rows: Schemas['StudyRow'][];
  row: string;
  specimen: string;
  character: Schemas['StudyCharacter'];
}>();
const emit = defineEmits<{ choose: [specimen: string] }>();
const { t } = useI18n();
const model = useStudy();
const against = ref('');

const own = computed(() => props.measured.rows.find((r) => r.row === props.row));
const nameOf = (id: string) => {
  const found = props.rows.find((r) => r.id === id);
  return found ? rowName(found) : id;
};
const others = computed(() => [
  { value: '', title: t('measure.plot.nobody') },
  ...props.measured.rows
    .filter((r) => r.row && r.row !== props.row && r.summary)
    .map((r) => ({ value: r.row, title: nameOf(r.row) })),
]);

/** To three digits, as many as a range of a few individuals bears. */
const figure = (value: number) => Number(value.toPrecision(value >= 100 ? 4 : 3)).toString();

const query = useQuery({
  queryKey: computed(() => [
    'threshold',
    model.slug,
    props.character.id,
    props.row,
    against.value,
    model.study.value?.revision,
  ]),
  queryFn: async () => {
    const found = await api.get('/api/v1/studies/{slug}/readings/of-character/{id}/threshold', {
      slug: model.slug,
      id: props.character.id,
      first: props.row,
      second: against.value,
    });
    // Where no limit separates them, the answer is empty.
    return (found as typeof found | undefined) ?? null;
  },
  enabled: computed(() => against.value !== '' && props.row !== '' && against.value !== props.row),
  retry: false,
});
const threshold = computed(() => (against.value && against.value !== props.row ? (query.data.value ?? null) : null));
watch(
  () => props.character.id,
  () => (against.value = ''),
);

const numbers = computed(() => own.value?.summary);
const counted = computed(() => {
  const counts = own.value?.cell.counts;
  return (['individuals', 'items', 'collections'] as const)
    .flatMap((of) => (counts ? [t(`measure.summary.n.${of}`, counts[of])] : []))
    .join(', ');
});
const states = computed(() =>
  (own.value?.shares ?? []).map((s) => ({
    label: props.character.states.find((of) => of.id === s.state)?.label ?? s.state,
    n: figure(s.individuals),
    share: s.individuals / (own.value?.cell.counts.individuals || 1),
  })),
);
</script>

<template>
  <section :aria-label="$t('measure.tray.title')">
    <h3>{{ row ? nameOf(row) : $t('measure.unnamed') }}</h3>
    <ul v-if="states.length" class="states">
      <li v-for="state in states" :key="state.label">
        <span class="share" :style="{ width: `${state.share * 8}rem` }" aria-hidden="true" />
        <span>{{ state.label }}</span> <span class="figures quiet">{{ state.n }}</span>
      </li>
    </ul>
    <DotPlot
      v-else
      :measured="measured"
      :rows="rows"
      :row="row"
      :specimen="specimen"
      :threshold="threshold"
      @choose="emit('choose', $event)"
    />
    <div v-if="own" class="says figures">
      <div>{{ counted }}</div>
      <template v-if="numbers">
        <div v-if="numbers.n > 1">
          {{ $t('measure.summary.mean', { mean: figure(numbers.mean), sd: figure(numbers.sd) }) }};
          {{
            $t('measure.summary.median', {
              median: figure(numbers.median),
              low: figure(numbers.p5),
              high: figure(numbers.p95),
            })
          }}
        </div>
        <div v-if="own.repeatability != null">
          {{ $t('measure.summary.repeat', { repeat: figure(own.repeatability) }) }}
        </div>
      </template>
      <div v-if="own.unlike" class="warn">
        {{
          $t('measure.summary.unlike', {
            first: own.unlike.first,
            second: own.unlike.second,
            apart: figure(own.unlike.apart),
          })
        }}
      </div>
      <div v-if="own.cell.leftOut">
        {{
          $t(
            'measure.summary.leftOut',
            { n: own.cell.leftOut, material: $t(`measure.material.${own.cell.material}`) },
            own.cell.leftOut,
          )
        }}
      </div>
      <div v-if="own.cell.oneGathering" class="warn">{{ $t('measure.summary.oneGathering') }}</div>
      <div v-if="numbers && own.cell.more">{{ $t('measure.summary.more', own.cell.more) }}</div>
      <div v-if="own.cell.proposed">
        <strong>{{ own.cell.proposed }} {{ measured.unit }}</strong
        >&nbsp;
        <router-link :to="`/studies/${model.slug}/gather/cells?character=${character.id}`">{{
          $t(`measure.into.standings.${own.cell.standing}`)
        }}</router-link>
      </div>
    </div>
    <template v-if="numbers && others.length > 1">
      <v-select v-model="against" :items="others" :label="$t('measure.plot.against')" density="compact" hide-details />
      <div v-if="threshold" class="cut" role="status">
        <p>
          {{
            $t(threshold.crossValidated == null ? 'measure.plot.once' : 'measure.plot.cut', {
              cut: figure(threshold.cut),
              unit: measured.unit,
              lower: nameOf(threshold.lower),
              upper: nameOf(threshold.upper),
              error: ((threshold.crossValidated ?? threshold.error) * 100).toFixed(0),
            })
          }}
        </p>
        <p>
          <strong>{{
            $t('measure.plot.doubt', {
              low: figure(threshold.doubtLow),
              high: figure(threshold.doubtHigh),
              unit: measured.unit,
            })
          }}</strong>
        </p>
        <p v-if="threshold.more" class="quiet">
          {{ threshold.more < 0 ? $t('measure.plot.never') : $t('measure.plot.more', threshold.more) }}
        </p>
      </div>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin: 0.4rem 0 0.2rem;
  font-style: italic;
}

.says {
  margin: 0.2rem 0 0.6rem;
  font-size: 0.86rem;
}

.warn {
  color: rgb(var(--v-theme-warning));
}

.states {
  list-style: none;
  padding: 0;
  margin: 0 0 0.4rem;
}

.states li {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}

.share {
  height: 0.7rem;
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 50%, transparent);
}

.cut p {
  margin: 0.3rem 0;
  font-size: 0.88rem;
}
</style>
