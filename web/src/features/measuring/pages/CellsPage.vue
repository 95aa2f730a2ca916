<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { GatherTabs } from '@/features/specimens';
import { useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { useAction } from '@/shared/ui/useAction';

/** What the readings come to beside what the matrix says, to be written into its cells. */
const model = useStudy();
const route = useRoute();
const router = useRouter();
const study = model.study;
const { busy, problem, run } = useAction();
const at = { slug: model.slug };
const chosen = ref(new Set<string>());

const only = computed({
  get: () => route.query.all === undefined,
  set: (value) => void router.replace({ query: { ...route.query, all: value ? undefined : '1' } }),
});
const character = computed({
  get: () => String(route.query.character ?? ''),
  set: (value) => void router.replace({ query: { ...route.query, character: value || undefined } }),
});

const query = useQuery({
  queryKey: computed(() => ['cells', model.slug, study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/readings/cells', at),
  enabled: computed(() => study.value !== undefined),
  placeholderData: (old) => old,
  retry: false,
});

const editable = computed(() => ['SCORER', 'EDITOR', 'OWNER'].includes(study.value?.role ?? ''));
const key = (cell: Schemas['MeasuredCell']) => `${cell.row}/${cell.character}`;
const writable = (cell: Schemas['MeasuredCell']) =>
  cell.proposed !== '' && cell.standing !== 'MADE_OF_THESE' && cell.flagged === 0;
const news = (cell: Schemas['MeasuredCell']) => ['OUT_OF_DATE', 'BEYOND', 'EMPTY'].includes(cell.standing);

const groups = computed(() =>
  (study.value?.characters ?? [])
    .filter((c) => !character.value || c.id === character.value)
    .map((of) => ({
      character: of,
      cells: (query.data.value ?? []).filter((c) => c.character === of.id && (!only.value || news(c))),
    }))
    .filter((g) => g.cells.length),
);
const measured = computed(() => {
  const read = new Set((query.data.value ?? []).map((c) => c.character));
  return [
    { value: '', title: '' },
    ...(study.value?.characters ?? []).filter((c) => read.has(c.id)).map((c) => ({ value: c.id, title: c.label })),
  ];
});
const rowOf = (id: string) => study.value?.rows.find((r) => r.id === id);
const open = computed(() => groups.value.flatMap((g) => g.cells).filter((c) => writable(c) && news(c)));
const wanted = computed(() => open.value.filter((c) => chosen.value.has(key(c))));

function toggle(cell: Schemas['MeasuredCell'], on: boolean) {
  const next = new Set(chosen.value);
  if (on) next.add(key(cell));
  else next.delete(key(cell));
  chosen.value = next;
}

async function write() {
  const cells = wanted.value.map((c) => ({ row: c.row, character: c.character, notation: c.proposed }));
  const done = await run(async () => {
    await api.post('/api/v1/studies/{slug}/readings/cells', at, { cells });
    await model.catchUp();
  });
  if (done) chosen.value = new Set();
}
</script>

<template>
  <div class="page">
    <GatherTabs :slug="model.slug" />
    <header class="head">
      <h2>{{ $t('measure.into.title') }}</h2>
    </header>
    <p class="quiet">{{ $t('measure.into.lead') }}</p>
    <div class="ways">
      <v-select
        v-model="character"
        class="which"
        :items="measured"
        :label="$t('measure.character')"
        density="compact"
        hide-details
        clearable
      />
      <v-checkbox v-model="only" :label="$t('measure.into.only')" density="compact" hide-details />
      <template v-if="editable">
        <v-btn size="small" :disabled="!open.length" @click="chosen = new Set(open.map(key))">{{
          $t('measure.into.all')
        }}</v-btn>
        <v-btn color="primary" variant="flat" :loading="busy" :disabled="!wanted.length" @click="write">{{
          $t('measure.into.accept', wanted.length)
        }}</v-btn>
      </template>
    </div>
    <ProblemNote :problem="problem ?? query.error.value" />
    <v-progress-linear v-if="query.isPending.value" indeterminate :aria-label="$t('loading')" />
    <p v-if="query.data.value && !query.data.value.length">{{ $t('measure.into.none') }}</p>
    <p v-else-if="query.data.value && !groups.length">
      {{ $t('measure.into.settled') }}
      <v-btn v-if="only" size="small" variant="text" @click="only = false">{{ $t('measure.into.showAll') }}</v-btn>
    </p>
    <table v-if="groups.length">
      <thead>
        <tr>
          <th v-if="editable" scope="col">
            <span class="sr-only">{{ $t('measure.into.all') }}</span>
          </th>
          <th scope="col">{{ $t('measure.into.taxon') }}</th>
          <th scope="col">{{ $t('measure.into.now') }}</th>
          <th scope="col">{{ $t('measure.into.proposed') }}</th>
          <th scope="col">{{ $t('measure.into.n') }}</th>
          <th scope="col">{{ $t('measure.into.standing') }}</th>
        </tr>
      </thead>
      <tbody v-for="group in groups" :key="group.character.id">
        <tr class="group">
          <th :colspan="editable ? 6 : 5" scope="rowgroup">
            {{ group.character.label }}
            <span v-if="group.character.unit" class="quiet">({{ group.character.unit }})</span>
            <router-link :to="`/studies/${model.slug}/gather/measure?character=${group.character.id}`">{{
              $t('measure.into.measure')
            }}</router-link>
          </th>
        </tr>
        <tr v-for="cell in group.cells" :key="key(cell)">
          <td v-if="editable">
            <input
              type="checkbox"
              :checked="chosen.has(key(cell))"
              :disabled="!writable(cell)"
              :aria-label="
                $t('measure.into.choose', { row: rowOf(cell.row)?.label ?? '', character: group.character.label })
              "
              @change="toggle(cell, ($event.target as HTMLInputElement).checked)"
            />
          </td>
          <th scope="row">
            <router-link :to="`/studies/${model.slug}/score?row=${cell.row}&character=${cell.character}`">
              <TaxonName v-if="rowOf(cell.row)" :label="rowOf(cell.row)!.label" :stage="rowOf(cell.row)!.stage" />
            </router-link>
            <HazardMark v-if="rowOf(cell.row)" :hazard="rowOf(cell.row)!.hazard" />
          </th>
          <td class="figures">
            {{ cell.inherited ? $t('measure.into.inherited', { text: cell.now }) : cell.now || '–' }}
          </td>
          <td class="figures">
            <strong>{{ cell.proposed || '–' }}</strong>
            <span v-if="cell.provisional" class="quiet">&nbsp;{{ $t('measure.into.provisional') }}</span>
          </td>
          <td class="figures">
            {{ cell.counts.individuals }}
            <span v-if="cell.oneGathering" class="warn"> {{ $t('measure.summary.oneGathering') }}</span>
          </td>
          <td>
            <span class="standing" :class="cell.standing">{{ $t(`measure.into.standings.${cell.standing}`) }}</span>
            <router-link
              v-if="cell.flagged"
              class="warn"
              :to="`/studies/${model.slug}/gather/measure?character=${cell.character}`"
              >{{ $t('measure.into.flagged', cell.flagged) }}</router-link
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.head,
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 0.9rem;
}

.which {
  flex: 0 1 18rem;
}

table {
  border-collapse: collapse;
  margin-top: 0.6rem;
  min-width: min(100%, 54rem);
}

th,
td {
  text-align: left;
  padding: 0.28rem 0.9rem 0.28rem 0;
  border-bottom: 1px solid var(--rule);
  font-weight: 400;
}

thead th {
  font-weight: 600;
}

.group th {
  padding-top: 0.9rem;
  font-weight: 600;
}

.group a {
  margin-left: 0.8rem;
  font-weight: 400;
}

.warn {
  color: rgb(var(--v-theme-warning));
}

.standing.OUT_OF_DATE,
.standing.BEYOND {
  font-weight: 600;
}

.standing.OUT_OF_DATE {
  text-decoration: underline dotted;
}

.warn,
.standing {
  margin-right: 0.6rem;
}
</style>
