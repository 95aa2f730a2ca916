<script setup lang="ts">
import { ref, watch } from 'vue';
import type { Schemas } from '@/api/client';
import type { StudyModel } from '@/features/study';
import { useAction } from '@/shared/useAction';
import WriteProblem from '@/shared/WriteProblem.vue';

/** What a study is about and for whom, with the cautions of its editions. */
const props = defineProps<{ model: StudyModel; editable: boolean }>();
const fields = ['group', 'covers', 'leavesOut', 'region', 'stages', 'audience', 'equipment'] as const;
const draft = ref<Schemas['StudyScope'] | null>(null);
const title = ref('');
const cautions = ref('');
const saved = ref(false);
const { busy, problem, run } = useAction();
let typed = false;
let seen = 0;

function take() {
  const study = props.model.study.value;
  if (!study) return;
  draft.value = { ...study.scope };
  title.value = study.title;
  cautions.value = study.scope.cautions.join('\n');
  seen = props.model.seen('scope');
  typed = false;
  problem.value = null;
}

// What others change comes in, unless something is being typed.
watch(
  () => props.model.study.value?.revision,
  () => typed || take(),
  { immediate: true },
);

function type() {
  typed = true;
  saved.value = false;
}

function save(over?: number) {
  return run(async () => {
    const scope = {
      ...draft.value,
      cautions: cautions.value
        .split('\n')
        .map((c) => c.trim())
        .filter(Boolean),
    };
    const body = { title: title.value, scope, seen: over ?? seen };
    await props.model.send('PUT', `/api/studies/${encodeURIComponent(props.model.slug)}/scope`, body);
    typed = false;
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
  <form v-if="draft" @submit.prevent="save()" @input="type">
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
      @change="type"
    />
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
