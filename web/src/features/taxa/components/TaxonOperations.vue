<script setup lang="ts">
import { mdiCallMerge, mdiCallSplit } from '@mdi/js';
import { computed, ref } from 'vue';
import type { Schemas } from '@/api/client';
import { OperationDialog, SplitDialog, useStudy } from '@/study-kernel';
import { rowName } from '@/shared/taxon/rowNames';

/** A taxon becomes part of another, or several: scores follow, and what is not assigned stays open and doubtful. */
const props = defineProps<{ row: Schemas['StudyRow'] }>();
const emit = defineEmits<{ done: [] }>();
const model = useStudy();
const operation = ref<Schemas['OperationRequest']['operation'] | null>(null);
const splitting = ref(false);
const others = computed(() =>
  (model.study.value?.rows ?? []).filter((r) => r.id !== props.row.id && Boolean(r.stage) === Boolean(props.row.stage)),
);
const place = computed(() => (model.study.value?.rows ?? []).findIndex((r) => r.id === props.row.id));
/** Specimens that bear its name now. */
const named = computed(() =>
  (model.study.value?.specimens ?? [])
    .filter((s) => s.determinations.at(-1)?.row === props.row.id)
    .map((s) => ({ id: s.id, label: s.code })),
);
/** The scores of the taxon itself. */
const scored = computed(() =>
  (model.study.value?.characters ?? []).flatMap((c) => {
    const cell = model.columns.cell(place.value, c.id);
    return cell && !cell.from && cell.text ? [{ id: c.id, label: `${c.label}: ${cell.text}` }] : [];
  }),
);

function merge(to: string) {
  const merging: Schemas['MergeTaxa'] = { operation: 'MergeTaxa', from: props.row.id, into: to };
  operation.value = merging;
}

function begin() {
  splitting.value = true;
  void model.columns.want((model.study.value?.characters ?? []).map((c) => c.id));
}

function split(into: string[], assigned: Record<string, string[]>, specimens: Record<string, string>) {
  const wish: Schemas['SplitTaxon'] = { operation: 'SplitTaxon', row: props.row.id, into, assigned, specimens };
  splitting.value = false;
  operation.value = wish;
}

function done() {
  operation.value = null;
  emit('done');
}
</script>

<template>
  <div class="operations">
    <v-menu>
      <template #activator="{ props: activator }">
        <v-btn v-bind="activator" size="small" variant="text" :prepend-icon="mdiCallMerge">{{
          $t('taxon.mergeInto')
        }}</v-btn>
      </template>
      <v-list density="compact" max-height="20rem">
        <v-list-item v-for="other in others" :key="other.id" :title="rowName(other)" @click="merge(other.id)" />
      </v-list>
    </v-menu>
    <v-btn v-if="!row.stage" size="small" variant="text" :prepend-icon="mdiCallSplit" @click="begin">{{
      $t('taxon.split')
    }}</v-btn>
    <SplitDialog
      v-model="splitting"
      :title="$t('taxon.splitTitle')"
      :into="$t('taxon.splitInto')"
      :hint="$t('taxon.splitScores')"
      :first="row.label"
      :items="scored"
      :single="named"
      :single-hint="$t('taxon.splitSpecimens')"
      @show="split"
    />
    <OperationDialog
      :title="$t('taxon.operation')"
      :yes="$t('character.change')"
      :operation="operation"
      @done="done"
      @closed="operation = null"
    />
  </div>
</template>

<style scoped>
.operations {
  display: flex;
  gap: 0.6rem;
  margin-top: 0.6rem;
}
</style>
