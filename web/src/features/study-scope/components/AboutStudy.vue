<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { api, type Schemas } from '@/api/client';
import type { StudyModel } from '@/study-kernel';
import { useTyped } from '@/shared/ui/leaving';
import { useAction } from '@/shared/ui/useAction';
import { rowChoices } from '@/shared/taxon/rowNames';
import WriteProblem from '@/shared/ui/WriteProblem.vue';
import RepeatedFields from '@/shared/ui/RepeatedFields.vue';

/** What a study is about and for whom, with the cautions of its editions. */
const props = defineProps<{ model: StudyModel; editable: boolean }>();
const fields = ['group', 'covers', 'leavesOut', 'region', 'stages', 'audience', 'equipment'] as const;
const draft = ref<Schemas['StudyScope'] | null>(null);
const title = ref('');
const cautions = ref('');
const saved = ref(false);
/** What was there to begin with. */
const taken = ref('');
const now = () => JSON.stringify([draft.value, title.value, cautions.value]);
const dirty = computed(() => now() !== taken.value);
useTyped(() => props.editable && taken.value !== '' && dirty.value);
const rows = computed(() => rowChoices(props.model.study.value?.rows));
const nameOf = (row: string) => rows.value.find((r) => r.value === row)?.title ?? row;
const loss = { row: '', named: '', times: 10, why: '' };
const { busy, problem, run } = useAction();
let baseRevision = 0;

function take() {
  const study = props.model.study.value;
  if (!study) return;
  draft.value = JSON.parse(JSON.stringify(study.scope)) as Schemas['StudyScope'];
  title.value = study.title;
  cautions.value = study.scope.cautions.join('\n');
  baseRevision = props.model.baseRevision('scope');
  taken.value = now();
  problem.value = null;
}

// What others change comes in, unless something is being typed.
watch(
  () => props.model.study.value?.revision,
  () => (dirty.value && taken.value ? undefined : take()),
  { immediate: true },
);

watch(dirty, (changed) => changed && (saved.value = false));

function save(over?: number) {
  const written = draft.value;
  if (!written) return Promise.resolve(false);
  return run(async () => {
    const scope = {
      ...written,
      cautions: cautions.value
        .split('\n')
        .map((c) => c.trim())
        .filter(Boolean),
    };
    const body = { title: title.value, scope, baseRevision: over ?? baseRevision };
    await api.put('/api/v1/studies/{slug}/scope', { slug: props.model.slug }, body);
    taken.value = now();
    await props.model.reload();
    saved.value = true;
  });
}

async function theirs() {
  await props.model.reload();
  take();
}
</script>

<template>
  <form v-if="draft" @submit.prevent="save()">
    <v-text-field v-model="title" :label="$t('scope.title')" :readonly="!editable" hide-details />
    <v-textarea
      v-for="field in fields"
      :key="field"
      v-model="draft[field]"
      :label="$t(`scope.${field}`)"
      :readonly="!editable"
      rows="1"
      auto-grow
      hide-details
    />
    <v-textarea
      v-model="cautions"
      :label="$t('scope.cautions')"
      :readonly="!editable"
      rows="2"
      auto-grow
      hide-details
    />
    <v-checkbox
      v-model="draft.gatheredForFood"
      :label="$t('scope.food')"
      :readonly="!editable"
      density="compact"
      hide-details
    />
    <RepeatedFields
      v-model="draft.losses"
      :title="$t('losses.title')"
      :add="$t('losses.add')"
      :remove="(entry) => $t('losses.remove', { row: nameOf(entry.row), named: nameOf(entry.named) })"
      :blank="loss"
      :readonly="!editable"
    >
      <template #default="{ entry, field }">
        <v-autocomplete v-bind="field" v-model="entry.row" :items="rows" :label="$t('losses.row')" />
        <v-autocomplete v-bind="field" v-model="entry.named" :items="rows" :label="$t('losses.named')" />
        <v-text-field
          v-bind="field"
          v-model.number="entry.times"
          type="number"
          min="0.1"
          max="1000"
          step="any"
          :label="$t('losses.times')"
        />
        <v-text-field v-bind="field" v-model="entry.why" :label="$t('losses.why')" />
      </template>
    </RepeatedFields>
    <WriteProblem :problem="problem" @theirs="theirs" @mine="save" />
    <div v-if="editable">
      <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{ $t('save') }}</v-btn>
      <span v-if="saved" class="ml-3" role="status">{{ $t('saved') }}</span>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.9rem;
  margin-top: 0.75rem;
}
</style>
