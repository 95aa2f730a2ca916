<script setup lang="ts">
import { mdiFileDownload, mdiPrinter } from '@mdi/js';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { useAction } from '@/shared/ui/useAction';
import GatherTabs from '../components/GatherTabs.vue';
import ShelfOrder from '../components/ShelfOrder.vue';
import { matching } from '../logic/specimens';
import { useShelf } from '../composables/useShelf';
import { inShelfOrder } from '../logic/shelf';
import { KINDS, SIZES, warnings, type Kind } from '../logic/sheets';

/** Labels, scoring sheets, answer sheets and the kit list, to be printed, or kept as PDF by the browser's print dialog. */
const model = useStudy();
const route = useRoute();
const router = useRouter();
const { t } = useI18n();
const study = model.study;

const inAddress = (name: string, otherwise: string) =>
  computed({
    get: () => String(route.query[name] ?? otherwise),
    set: (value) => void router.replace({ query: { ...route.query, [name]: value || undefined } }),
  });
const kind = inAddress('kind', 'collecting');
const size = inAddress('size', 'box');
const find = inAddress('find', '');
const trays = inAddress('trays', '20');
const organ = inAddress('organ', '');

const at = { slug: model.slug };
/** Without the places of sensitive taxa: a label leaves the house. */
const query = useQuery({
  queryKey: computed(() => ['sheet-specimens', model.slug, study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/specimens/labels', at),
  enabled: computed(() => study.value !== undefined),
  placeholderData: (old) => old,
  retry: false,
});

const rows = computed(() => study.value?.rows ?? []);
const nameOf = (id: string) => rows.value.find((r) => r.id === id)?.label ?? id;
const shelf = useShelf();
const specimens = computed(() => {
  const all = (query.data.value ?? []).map((l) => l.specimen);
  return inShelfOrder(matching(all, find.value, nameOf), rows.value, shelf.value);
});
const labels = computed(() => {
  const byId = new Map(query.data.value?.map((l) => [l.specimen.id, l]));
  return specimens.value.flatMap((s) => {
    const found = byId.get(s.id);
    return found ? [{ id: s.id, ...(kind.value === 'collecting' ? found.collecting : found.determination) }] : [];
  });
});

const { busy, problem, run } = useAction();
/** The labels on sheets of paper, as a file. */
const keep = () =>
  run(async () => {
    const file = await api.file('/api/v1/studies/{slug}/specimens/labels/sheet', at, {
      specimens: labels.value.map((l) => l.id),
      collecting: kind.value === 'collecting',
      size: size.value.toUpperCase() as Schemas['LabelSheetRequest']['size'],
    });
    const link = document.createElement('a');
    link.href = URL.createObjectURL(file);
    link.download = `${model.slug}-${kind.value}-labels.pdf`;
    link.click();
    URL.revokeObjectURL(link.href);
  });
const measure = computed(() => SIZES.find((s) => s.id === size.value) ?? SIZES[2]);
const kinds = computed(() => KINDS.map((value: Kind) => ({ value, title: t(`sheets.kinds.${value}`) })));
const sizes = SIZES.map((s) => ({
  value: s.id,
  title: t(`sheets.sizes.${s.id}`, { width: s.width, height: s.height }),
}));
const organs = computed(() => [
  { value: '', title: t('sheets.allOrgans') },
  ...[...new Set((study.value?.characters ?? []).map((c) => c.organ).filter(Boolean))].map((o) => ({
    value: o,
    title: o,
  })),
]);
const characters = computed(() =>
  (study.value?.characters ?? []).filter((c) => !organ.value || c.organ === organ.value),
);
const isLabel = computed(() => kind.value === 'collecting' || kind.value === 'determination');
const list = computed(() => warnings(rows.value));
const things = useQuery({
  queryKey: computed(() => ['kit', model.slug, study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/kit', at),
  enabled: computed(() => kind.value === 'kit'),
  placeholderData: (old) => old,
});
const numbers = computed(() =>
  Array.from({ length: Math.max(1, Math.min(200, Number(trays.value) || 1)) }, (_, i) => i + 1),
);
const print = () => window.print();
</script>

<template>
  <div class="page sheets">
    <GatherTabs :slug="model.slug" />
    <header class="no-print">
      <h2>{{ $t('sheets.title') }}</h2>
      <p class="quiet">{{ $t('sheets.lead') }}</p>
      <div class="ways">
        <v-select v-model="kind" :items="kinds" :label="$t('sheets.kind')" density="compact" hide-details />
        <v-select
          v-if="isLabel"
          v-model="size"
          :items="sizes"
          :label="$t('sheets.size')"
          density="compact"
          hide-details
        />
        <v-text-field
          v-if="isLabel || kind === 'scoring'"
          v-model="find"
          :label="$t('gather.find')"
          density="compact"
          hide-details
          clearable
        />
        <v-select
          v-if="kind === 'scoring'"
          v-model="organ"
          :items="organs"
          :label="$t('sheets.organ')"
          density="compact"
          hide-details
        />
        <v-text-field
          v-if="kind === 'answers'"
          v-model="trays"
          type="number"
          min="1"
          max="200"
          :label="$t('sheets.trays')"
          density="compact"
          hide-details
        />
        <ShelfOrder v-if="isLabel || kind === 'scoring'" :rows="rows" />
        <v-btn
          v-if="isLabel"
          :prepend-icon="mdiFileDownload"
          :loading="busy"
          :disabled="!labels.length"
          @click="keep"
          >{{ $t('sheets.pdf') }}</v-btn
        >
        <v-btn color="primary" variant="flat" :prepend-icon="mdiPrinter" @click="print">{{ $t('sheets.print') }}</v-btn>
      </div>
      <ProblemNote :problem="query.error.value ?? problem" />
      <p v-if="isLabel" class="quiet">{{ $t('sheets.count', labels.length) }}</p>
    </header>

    <div
      v-if="isLabel"
      class="labels"
      :style="{ '--w': `${measure.width}mm`, '--h': `${measure.height}mm`, '--type': `${measure.type}pt` }"
    >
      <article v-for="label in labels" :key="label.id" class="label">
        <strong>{{ label.code }}</strong>
        <em v-if="label.name">{{ label.name }}</em>
        <span v-for="(line, i) in label.lines" :key="i">{{ line }}</span>
      </article>
    </div>

    <template v-else-if="kind === 'scoring'">
      <section v-for="specimen in specimens" :key="specimen.id" class="scoring">
        <h3>
          {{ specimen.code }}
          <span class="quiet">{{ $t('sheets.scorer') }}</span>
        </h3>
        <table>
          <tbody>
            <tr v-for="character in characters" :key="character.id">
              <th scope="row">{{ character.label }}</th>
              <td>
                <template v-if="character.states.length">
                  <span v-for="state in character.states" :key="state.id" class="choice">{{ state.label }}</span>
                </template>
                <span v-else class="blank">{{ character.unit }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>

    <section v-else-if="kind === 'answers'" class="answers">
      <h3>{{ study?.title }}</h3>
      <p>{{ $t('sheets.who') }}</p>
      <p v-if="study?.scope.gatheredForFood" class="caution">{{ $t('sheets.food') }}</p>
      <table>
        <thead>
          <tr>
            <th scope="col">{{ $t('sheets.tray') }}</th>
            <th scope="col">{{ $t('sheets.name') }}</th>
            <th scope="col">{{ $t('sheets.by') }}</th>
            <th scope="col">{{ $t('sheets.certain') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="n in numbers" :key="n">
            <th scope="row" class="figures">{{ n }}</th>
            <td></td>
            <td></td>
            <td>{{ $t('sheets.levels') }}</td>
          </tr>
        </tbody>
      </table>
    </section>

    <section v-else class="kit">
      <h3>{{ $t('sheets.kinds.kit') }}: {{ study?.title }}</h3>
      <h4>{{ $t('sheets.bring') }}</h4>
      <ul>
        <li v-for="thing in things.data.value?.things" :key="thing">{{ thing }}</li>
      </ul>
      <template v-if="list.dangerous.length">
        <h4>{{ $t('sheets.dangerous') }}</h4>
        <ul>
          <li v-for="row in list.dangerous" :key="row.id">
            <TaxonName :label="row.label" :stage="row.stage" /> <HazardMark :hazard="row.hazard" />
          </li>
        </ul>
      </template>
      <template v-if="list.cautions.length">
        <h4>{{ $t('sheets.cautions') }}</h4>
        <ul>
          <li v-for="caution in list.cautions" :key="caution">{{ caution }}</li>
        </ul>
      </template>
      <p>{{ $t('sheets.field') }}</p>
    </section>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
  margin-top: 0.5rem;
}

.ways > * {
  flex: 0 1 15rem;
}

.ways > .v-btn {
  flex: none;
}

.kit {
  margin-top: 1.5rem;
}

.labels {
  display: flex;
  flex-wrap: wrap;
  margin-top: 1rem;
}

.label {
  box-sizing: border-box;
  width: var(--w);
  height: var(--h);
  padding: 0.8mm 1.2mm;
  overflow: hidden;
  border: 0.2mm solid #8a8678;
  margin: 0 -0.2mm -0.2mm 0;
  background: #fffdf8;
  color: #22241f;
  font-size: var(--type);
  line-height: 1.15;
  break-inside: avoid;
}

.label strong,
.label em,
.label span {
  display: block;
}

.label strong {
  font-size: 1.1em;
}

table {
  width: 100%;
  border-collapse: collapse;
}

.scoring {
  break-after: page;
}

.scoring th,
.scoring td,
.answers th,
.answers td {
  text-align: left;
  font-weight: 400;
  padding: 1mm 2mm;
  border: 1px solid var(--rule);
}

.answers th[scope='col'] {
  font-weight: 600;
}

.answers td {
  height: 9mm;
}

.choice {
  display: inline-block;
  margin-right: 1.4em;
}

.choice::before {
  content: '';
  display: inline-block;
  width: 0.75em;
  height: 0.75em;
  margin-right: 0.4em;
  border: 1px solid currentColor;
  border-radius: 50%;
}

.blank {
  display: inline-block;
  min-width: 12em;
  border-bottom: 1px solid currentColor;
  text-align: right;
}

.caution {
  font-weight: 600;
}

@media print {
  .sheets {
    padding: 0;
    max-width: none;
  }

  .labels {
    margin: 0;
  }
}
</style>
