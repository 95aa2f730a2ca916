<script setup lang="ts">
import { mdiCallMerge, mdiCallSplit } from '@mdi/js';
import { computed, ref } from 'vue';
import type { Schemas } from '@/api/client';
import { OperationDialog, useStudy } from '@/features/study';

/** A taxon becomes part of another, or several: scores follow, and what is not assigned stays open and doubtful. */
const props = defineProps<{ row: Schemas['StudyRow'] }>();
const emit = defineEmits<{ done: [] }>();
const model = useStudy();
const operation = ref<Schemas['StudyOperation'] | null>(null);
const splitting = ref(false);
/** One a line. */
const names = ref('');
const into = computed(() =>
  names.value
    .split('\n')
    .map((n) => n.trim())
    .filter(Boolean),
);
const assigned = ref<Record<string, string[]>>({});
const others = computed(() =>
  (model.study.value?.rows ?? []).filter((r) => r.id !== props.row.id && Boolean(r.stage) === Boolean(props.row.stage)),
);
const place = computed(() => (model.study.value?.rows ?? []).findIndex((r) => r.id === props.row.id));
/** The characters that the taxon itself is scored for. */
const scored = computed(() =>
  (model.study.value?.characters ?? []).filter((c) => {
    const cell = model.columns.cell(place.value, c.id);
    return cell && !cell.from && cell.text;
  }),
);

function merge(to: string) {
  const merging: Schemas['MergeTaxa'] = { operation: 'MergeTaxa', from: props.row.id, into: to };
  operation.value = merging;
}

function begin() {
  names.value = `${props.row.label}\n`;
  assigned.value = {};
  splitting.value = true;
  void model.columns.want((model.study.value?.characters ?? []).map((c) => c.id));
}

function split() {
  const wish: Schemas['SplitTaxon'] = {
    operation: 'SplitTaxon',
    row: props.row.id,
    into: into.value,
    assigned: Object.fromEntries(Object.entries(assigned.value).filter(([, to]) => to.length)),
  };
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
        <v-list-item
          v-for="other in others"
          :key="other.id"
          :title="other.label + (other.stage ? `, ${other.stage}` : '')"
          @click="merge(other.id)"
        />
      </v-list>
    </v-menu>
    <v-btn v-if="!row.stage" size="small" variant="text" :prepend-icon="mdiCallSplit" @click="begin">{{
      $t('taxon.split')
    }}</v-btn>
    <v-dialog v-model="splitting" max-width="38rem" scrollable :aria-label="$t('taxon.splitTitle')">
      <v-card>
        <v-card-title>{{ $t('taxon.splitTitle') }}</v-card-title>
        <v-card-text>
          <form id="split-taxon" @submit.prevent="split">
            <v-textarea v-model="names" :label="$t('taxon.splitInto')" rows="2" auto-grow autofocus hide-details />
            <p class="quiet">{{ $t('taxon.splitScores') }}</p>
            <v-select
              v-for="character in scored"
              :key="character.id"
              v-model="assigned[character.id]"
              :items="into"
              :label="`${character.label}: ${model.columns.cell(place, character.id)?.text ?? ''}`"
              multiple
              clearable
              hide-details
            />
          </form>
        </v-card-text>
        <v-card-actions>
          <v-btn variant="text" @click="splitting = false">{{ $t('leave') }}</v-btn>
          <v-btn type="submit" form="split-taxon" color="primary" variant="flat" :disabled="into.length < 2">{{
            $t('score.find.show')
          }}</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
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

form {
  display: grid;
  gap: 0.7rem;
}
</style>
