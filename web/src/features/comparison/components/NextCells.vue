<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Problem, type Schemas } from '@/api/client';
import { ScoringQueue, type QueueItem } from '@/features/matrix';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { rowName } from '@/shared/taxon/rowNames';
import { asked, type ViewingConditions } from '@/shared/viewing/conditions';
import { GROUPINGS, keepEffects, readEffects, sittings, type Grouping } from '../logic/worth';

/**
 * What to score next: cells ranked by the pairs that a score may be expected to part for each minute, in sittings, worked
 * through one after the other; beside what was expected stands what came of it.
 */
const props = defineProps<{ conditions: ViewingConditions }>();
const model = useStudy();
const { t } = useI18n();
const wanted = computed(() => asked(props.conditions));
const query = useQuery({
  queryKey: computed(() => ['next-cells', model.slug, wanted.value, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/apart/next-cells', { slug: model.slug, ...wanted.value }),
  placeholderData: (old) => old,
  retry: false,
});
const grouping = ref<Grouping>('rank');
const sitting = ref<string | null>(null);
const active = ref(0);
const problem = ref('');
/** The cells of the sitting as it began: scored ones stay in the queue, so that they can be looked at again. */
const working = ref<Schemas['WorthView'][]>([]);
const effects = ref(readEffects(model.slug));
const groups = computed(() => sittings(query.data.value?.cells ?? [], grouping.value));
const groupings = GROUPINGS.map((value) => ({ value, title: t(`apart.by.${value}`) }));
const editable = computed(() => model.study.value !== undefined && model.study.value.role !== 'VIEWER');
const study = computed(() => model.study.value);

const taxon = (id: string) => study.value?.rows.find((r) => r.id === id);
const character = (id: string) => study.value?.characters.find((c) => c.id === id);
const items = computed<QueueItem[]>(() =>
  working.value.flatMap((cell) => {
    const row = taxon(cell.row);
    const of = character(cell.character);
    const place = study.value?.rows.findIndex((r) => r.id === cell.row) ?? -1;
    return row && of
      ? [
          {
            id: `${cell.row}-${cell.character}`,
            row,
            character: of,
            named: true,
            title: of.label,
            cell: model.columns.cell(place, cell.character),
          },
        ]
      : [];
  }),
);

async function begin(name: string) {
  working.value = groups.value.find((g) => g.name === name)?.cells ?? [];
  active.value = 0;
  sitting.value = name;
  await model.columns.want([...new Set(working.value.map((c) => c.character))]);
}

async function score(item: QueueItem, text: string) {
  problem.value = '';
  const worth = working.value.find((c) => c.row === item.row.id && c.character === item.character.id);
  const before = query.data.value?.missing[item.row.id] ?? 0;
  try {
    await model.edit([
      { row: item.row.id, character: item.character.id, text, baseRevision: item.cell?.revision ?? 0 },
    ]);
    const others = effects.value.filter((e) => e.row !== item.row.id || e.character !== item.character.id);
    effects.value = [
      ...others,
      { row: item.row.id, character: item.character.id, predicted: worth?.pairs ?? 0, before, after: null },
    ];
  } catch (failure) {
    problem.value = (failure as Problem).message;
    active.value = Math.max(
      0,
      items.value.findIndex((i) => i.id === item.id),
    );
  }
}

// What a score came to is known with the counts of the revision after it.
watch(
  () => query.data.value,
  (view) => {
    if (!view) return;
    effects.value = effects.value.map((e) => (e.after === null ? { ...e, after: view.missing[e.row] ?? 0 } : e));
    keepEffects(model.slug, effects.value);
  },
);
const settled = computed(() => effects.value.filter((e) => e.after !== null));
const effectSum = computed(() => ({
  n: settled.value.length,
  predicted: settled.value.reduce((sum, e) => sum + e.predicted, 0).toFixed(1),
  achieved: settled.value.reduce((sum, e) => sum + e.before - (e.after ?? e.before), 0),
}));
const nameOf = (id: string) => {
  const row = taxon(id);
  return row ? rowName(row) : id;
};
const specimensOf = (cell: Schemas['WorthView']) =>
  cell.specimens
    .map((s) => (s.storage && grouping.value !== 'drawer' ? `${s.code} (${s.storage})` : s.code))
    .join(', ');
</script>

<template>
  <div class="next">
    <ProblemNote :problem="query.error.value" />
    <template v-if="sitting === null">
      <h2>{{ $t('apart.next') }}</h2>
      <p>{{ $t('apart.nextSays') }}</p>
      <v-btn-toggle v-model="grouping" mandatory density="compact" variant="outlined" divided>
        <v-btn v-for="g in groupings" :key="g.value" :value="g.value" size="small">{{ g.title }}</v-btn>
      </v-btn-toggle>
      <p v-if="query.data.value && !groups.length">{{ $t('apart.nothingHelps') }}</p>
      <section v-for="group in groups" :key="group.name" class="sitting">
        <h3>
          {{ grouping === 'rank' ? $t('apart.ranked') : group.name || $t(`apart.none.${grouping}`) }}
          <span class="figures quiet">{{
            $t(
              'apart.sitting',
              { n: group.cells.length, pairs: group.pairs.toFixed(1), minutes: Math.ceil(group.minutes) },
              group.cells.length,
            )
          }}</span>
          <v-btn v-if="editable" size="small" color="primary" @click="begin(group.name)">{{ $t('apart.work') }}</v-btn>
        </h3>
        <table>
          <thead>
            <tr>
              <th scope="col">{{ $t('apart.taxon') }}</th>
              <th scope="col">{{ $t('apart.character') }}</th>
              <th scope="col">{{ $t('apart.expected') }}</th>
              <th scope="col">{{ $t('apart.minutes') }}</th>
              <th scope="col">{{ $t('apart.specimens') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="cell in group.cells.slice(0, 40)" :key="`${cell.row} ${cell.character}`">
              <td>
                <i>{{ nameOf(cell.row) }}</i>
              </td>
              <td>{{ character(cell.character)?.label }}</td>
              <td class="figures">{{ cell.pairs.toFixed(2) }}</td>
              <td class="figures">{{ cell.effort }}</td>
              <td>{{ specimensOf(cell) || '–' }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="group.cells.length > 40" class="quiet figures">
          {{ $t('apart.more', { n: group.cells.length - 40 }) }}
        </p>
      </section>
    </template>
    <template v-else>
      <div class="bar">
        <v-btn size="small" variant="text" @click="sitting = null">{{ $t('apart.endSitting') }}</v-btn>
        <span class="figures">{{ $t('apart.place', { n: active + 1, all: items.length }) }}</span>
      </div>
      <ScoringQueue
        v-model:active="active"
        :items="items"
        :heading="$t('apart.next')"
        :by-row="false"
        :editable="editable"
        :problem="problem"
        @score="score"
        @dismiss="problem = ''"
      />
    </template>
    <section v-if="effects.length" class="effects">
      <h3>{{ $t('apart.effects') }}</h3>
      <p v-if="settled.length > 1" class="figures">{{ $t('apart.effectSum', effectSum) }}</p>
      <ul>
        <li v-for="effect in effects.slice(-6)" :key="`${effect.row} ${effect.character}`" class="figures">
          {{
            $t('apart.effect', {
              name: nameOf(effect.row),
              character: character(effect.character)?.label ?? effect.character,
              predicted: effect.predicted.toFixed(1),
              achieved: effect.after === null ? '…' : effect.before - effect.after,
            })
          }}
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.next {
  overflow: auto;
  padding: 0.6rem 0.8rem 2rem;
}

.sitting {
  margin-top: 0.8rem;
}

h3 {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.9rem;
  align-items: center;
}

h3 .quiet {
  font-family: var(--sans);
  font-size: 0.9rem;
  font-weight: 400;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 0.25rem 0.7rem 0.25rem 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
}

td:first-child {
  white-space: nowrap;
}

.bar {
  display: flex;
  gap: 1rem;
  align-items: center;
}

.effects {
  margin-top: 1rem;
  padding-top: 0.5rem;
  border-top: 1px solid var(--rule);
}
</style>
