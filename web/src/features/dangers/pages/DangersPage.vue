<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import FailingNote from '../components/FailingNote.vue';

/** What keeps readers from ruling each danger out, and the cells that somebody has to vouch for. */
const model = useStudy();
const route = useRoute();
const router = useRouter();
const queries = useQueryClient();
const chosen = ref<string[]>([]);
const source = ref('');
const { busy, problem, run } = useAction();
const found = useQuery({
  queryKey: computed(() => ['dangers', model.slug, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/dangers', { slug: model.slug }),
});
const mayConfirm = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const dangers = computed(() => found.data.value?.dangers ?? []);
/** The one that was asked for, else the first with something to do. */
const shown = computed(
  () =>
    dangers.value.find((d) => d.row === route.query.row) ?? dangers.value.find((d) => d.blocked) ?? dangers.value[0],
);
const keyOf = (cell: Schemas['CellToConfirm']) => `${cell.row}/${cell.character}`;
const confirmable = computed(() => (shown.value?.cells ?? []).filter((c) => c.why !== 'DOUBTFUL'));
/** The danger beside the first taxon that nothing separates it from, for the card of the pair. */
const worst = computed(() => {
  const failing = shown.value?.failing.find((f) => f.blocking && f.others.length);
  if (!shown.value || !failing) return null;
  return {
    rows: `${shown.value.row},${failing.others[0]}`,
    danger: shown.value.name,
    other: failing.otherNames[0] ?? '',
  };
});

function choose(row: string) {
  chosen.value = [];
  void router.replace({ query: { ...route.query, row } });
}

function confirm() {
  return run(async () => {
    const cells = confirmable.value
      .filter((c) => chosen.value.includes(keyOf(c)))
      .map(({ row, character, text }) => ({ row, character, text }));
    await api.post('/api/v1/studies/{slug}/confirmations', { slug: model.slug }, { cells, source: source.value });
    chosen.value = [];
    await model.reload();
    await queries.invalidateQueries({ queryKey: ['dangers', model.slug] });
  });
}
</script>

<template>
  <div v-if="found.data.value" class="page">
    <h2>{{ $t('dangers.title') }}</h2>
    <p class="quiet">{{ $t('dangers.lead') }}</p>
    <p v-if="!dangers.length">{{ $t('dangers.none') }}</p>
    <div v-else class="two">
      <ul class="list">
        <li v-for="d in dangers" :key="d.row">
          <button type="button" :aria-pressed="d.row === shown?.row" @click="choose(d.row)">
            <TaxonName :label="d.label" :stage="d.stage" /> <HazardMark :hazard="d.severity" />
            <span class="state">{{ d.blocked ? $t('dangers.open') : $t('dangers.met') }}</span>
          </button>
        </li>
      </ul>
      <section v-if="shown" :aria-label="shown.name">
        <h3><TaxonName :label="shown.label" :stage="shown.stage" /></h3>
        <FailingNote v-for="f in shown.failing" :key="`${shown.row}/${f.kind}/${f.months.join()}`" :failing="f" />
        <p v-if="!shown.failing.length" class="good">{{ $t('dangers.clear') }}</p>
        <p v-if="shown.remedy === 'NAME_PARTS'">
          {{ $t('dangers.remedy.NAME_PARTS') }}
          <router-link :to="`/studies/${model.slug}/characters`">{{ $t('dangers.toParts') }}</router-link>
        </p>
        <p v-if="shown.remedy === 'SCORE' && worst">
          {{ $t('dangers.remedy.SCORE') }}
          <router-link :to="{ path: `/studies/${model.slug}/apart`, query: { rows: worst.rows, safely: 'true' } }">{{
            $t('dangers.toPair', { danger: worst.danger, other: worst.other })
          }}</router-link>
        </p>
        <template v-if="shown.cells.length">
          <h4>
            {{
              confirmable.length
                ? $t('dangers.cells', { n: shown.cells.length }, shown.cells.length)
                : $t('dangers.doubtful')
            }}
          </h4>
          <form @submit.prevent="confirm">
            <table>
              <thead>
                <tr>
                  <th scope="col">{{ $t('dangers.iChecked') }}</th>
                  <th scope="col">{{ $t('dangers.taxon') }}</th>
                  <th scope="col">{{ $t('dangers.character') }}</th>
                  <th scope="col">{{ $t('dangers.says') }}</th>
                  <th scope="col">{{ $t('dangers.from') }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="c in shown.cells" :key="keyOf(c)">
                  <td>
                    <input
                      v-if="c.why !== 'DOUBTFUL'"
                      v-model="chosen"
                      type="checkbox"
                      :value="keyOf(c)"
                      :disabled="!mayConfirm"
                      :aria-label="`${c.rowName}, ${c.label}: ${c.text}`"
                    />
                  </td>
                  <td>{{ c.rowName }}</td>
                  <td>
                    <router-link
                      :to="`/studies/${model.slug}/score?row=${c.row}&character=${encodeURIComponent(c.character)}`"
                      >{{ c.label }}</router-link
                    >
                  </td>
                  <td>{{ c.text }}</td>
                  <td class="quiet">{{ $t(`dangers.why.${c.why}`) }}{{ c.source ? ` · ${c.source}` : '' }}</td>
                </tr>
              </tbody>
            </table>
            <template v-if="mayConfirm && confirmable.length">
              <v-text-field v-model="source" :label="$t('dangers.source')" hide-details />
              <ProblemNote :problem="problem" />
              <v-btn type="submit" color="primary" variant="flat" :loading="busy" :disabled="!chosen.length">{{
                $t('dangers.confirm', { n: chosen.length }, chosen.length)
              }}</v-btn>
            </template>
          </form>
        </template>
      </section>
    </div>
  </div>
  <v-progress-linear v-else indeterminate :aria-label="$t('loading')" />
</template>

<style scoped>
.list :deep(.hazard) {
  white-space: nowrap;
}

.two {
  display: grid;
  grid-template-columns: minmax(12rem, 1fr) minmax(0, 2.4fr);
  gap: 2.5rem;
}

.list {
  list-style: none;
  padding: 0;
}

.list button {
  display: block;
  width: 100%;
  text-align: left;
  padding: 0.5rem 0.6rem;
  border-left: 3px solid transparent;
}

.list button[aria-pressed='true'] {
  border-left-color: rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-surface));
}

.state {
  display: block;
  font-size: 0.88rem;
}

.good {
  color: rgb(var(--v-theme-success));
  font-weight: 600;
}

form {
  display: grid;
  gap: 0.9rem;
  justify-items: start;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th,
td {
  text-align: left;
  padding: 0.35rem 0.6rem 0.35rem 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}

input[type='checkbox'] {
  width: 1.25rem;
  height: 1.25rem;
}

form .v-text-field {
  width: 100%;
}

@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
