<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import GatherTabs from '../components/GatherTabs.vue';
import { useShelf } from '../composables/useShelf';
import { inShelfOrder } from '../logic/shelf';
import { matching, present } from '../logic/specimens';

/** All specimens, a line each, to be sorted by any column. */
const model = useStudy();
const route = useRoute();
const router = useRouter();
const { t } = useI18n();
const study = model.study;

const find = computed({
  get: () => String(route.query.find ?? ''),
  set: (value) => void router.replace({ query: { ...route.query, find: value || undefined } }),
});
const rowOf = (id: string | undefined) => study.value?.rows.find((r) => r.id === id);
const COLUMNS = ['code', 'name', 'sex', 'stage', 'date', 'place', 'collector', 'storage', 'scores'] as const;
const headers = COLUMNS.map((key) => ({ key, title: t(`gather.column.${key}`) }));
const shelf = useShelf();
const found = computed(() => matching(study.value?.specimens ?? [], find.value, (id) => rowOf(id)?.label ?? id));
const lines = computed(() =>
  inShelfOrder(found.value, study.value?.rows ?? [], shelf.value).map((s) => ({
    id: s.id,
    code: s.code,
    qualifier: present(s)?.qualifier ?? '',
    row: rowOf(present(s)?.row),
    name: rowOf(present(s)?.row)?.label ?? '',
    sex: s.sex,
    stage: s.stage,
    date: s.event.date,
    place: s.event.place,
    collector: s.event.collector,
    storage: s.storage,
    scores: study.value?.counts.specimens[s.id] ?? 0,
  })),
);
</script>

<template>
  <div class="page">
    <GatherTabs :slug="model.slug" />
    <h2>{{ $t('gather.title') }}</h2>
    <v-text-field v-model="find" class="find" :label="$t('gather.find')" density="compact" hide-details clearable />
    <v-data-table-virtual
      :headers="headers"
      :items="lines"
      item-value="id"
      density="compact"
      height="60vh"
      fixed-header
      :no-data-text="$t('gather.noneFits')"
      class="figures"
    >
      <template #[`item.code`]="{ item }">
        <router-link class="code" :to="`/studies/${model.slug}/gather?specimen=${item.id}`">{{
          item.code
        }}</router-link>
      </template>
      <template #[`item.date`]="{ item }"
        ><span class="code">{{ item.date }}</span></template
      >
      <template #[`item.name`]="{ item }">
        {{ item.qualifier }}
        <TaxonName v-if="item.row" :label="item.row.label" :stage="item.row.stage" />
        <span v-else class="quiet">{{ $t('gather.nothing') }}</span>
        <HazardMark v-if="item.row" :hazard="item.row.hazard" />
      </template>
    </v-data-table-virtual>
  </div>
</template>

<style scoped>
.code {
  white-space: nowrap;
}

.find {
  max-width: 26rem;
  margin: 0.4rem 0;
}
</style>
