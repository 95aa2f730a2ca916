<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import StatePicture from '@/shared/picture/StatePicture.vue';
import WriteProblem from '@/shared/ui/WriteProblem.vue';
import { useAction } from '@/shared/ui/useAction';
import { statesIn } from '../logic/cells';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Settles a cell: what each scorer holds stands side by side, and one score is accepted. */
const props = defineProps<{ row: Schemas['StudyRow'] | undefined; character: Schemas['StudyCharacter'] | undefined }>();
const emit = defineEmits<{ settled: []; closed: [] }>();
const model = useStudy();
const { busy, problem, run } = useAction();
const dispute = ref<Schemas['Dispute'] | null>(null);
const text = ref('');
const note = ref('');
const open = computed({
  get: () => props.row !== undefined && props.character !== undefined,
  set: (is) => is || emit('closed'),
});
const name = computed(() => [props.row?.label, props.row?.stage, props.character?.label].filter(Boolean).join(' · '));

async function load() {
  dispute.value = null;
  note.value = '';
  if (!props.row || !props.character) return;
  await run(async () => {
    dispute.value = await api.get('/api/v1/studies/{slug}/agreement/cell', {
      slug: model.slug,
      row: props.row?.id ?? '',
      character: props.character?.id ?? '',
    });
    text.value = dispute.value.held.find((h) => h.accepted)?.text ?? '';
  });
}

watch(() => [props.row?.id, props.character?.id], load, { immediate: true });

async function settle(over?: number) {
  const done = await run(async () => {
    const baseRevision = over ?? dispute.value?.revision ?? 0;
    const settled = {
      row: props.row?.id ?? '',
      character: props.character?.id ?? '',
      text: text.value,
      note: note.value,
      baseRevision,
    };
    await api.post('/api/v1/studies/{slug}/agreement/settle', { slug: model.slug }, settled);
    await model.catchUp();
  });
  if (done) emit('settled');
}

/** The states that a text names, so that their pictures stand beside it. */
const statesOf = (said: string) => statesIn(said, props.character?.states ?? []);
</script>

<template>
  <ModalDialog v-model="open" max-width="760" :aria-label="$t('second.settle', { name })">
    <v-card :title="$t('second.settle', { name })">
      <v-card-text>
        <ul>
          <li v-for="held in dispute?.held ?? []" :key="held.scorer + held.accepted">
            <h3>{{ held.scorer }}</h3>
            <p class="quiet figures">{{ held.accepted ? $t('second.accepted') : held.date }}</p>
            <p class="text" :class="{ doubt: held.doubtful }">{{ held.text }}</p>
            <StatePicture v-for="state in statesOf(held.text)" :id="state.picture" :key="state.id" decorative />
            <p v-if="held.note">{{ held.note }}</p>
            <v-btn size="small" @click="text = held.text">{{ $t('second.take', { text: held.text }) }}</v-btn>
          </li>
        </ul>
        <v-text-field v-model="text" :label="$t('second.settled')" autofocus hide-details @keydown.enter="settle()" />
        <v-text-field v-model="note" class="why" :label="$t('second.why')" hide-details @keydown.enter="settle()" />
        <WriteProblem :problem="problem" @theirs="load" @mine="settle" />
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="emit('closed')">{{ $t('close') }}</v-btn>
        <v-btn color="primary" variant="flat" :loading="busy" :disabled="!text.trim()" @click="settle()">{{
          $t('second.accept')
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
ul {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
  gap: 1rem;
  list-style: none;
  padding: 0;
  margin-bottom: 1.2rem;
}

li {
  border-top: 2px solid rgb(var(--v-theme-primary));
  padding-top: 0.5rem;
}

.text {
  font-family: var(--serif);
  font-size: 1.2rem;
}

.doubt {
  text-decoration: underline dotted rgb(var(--v-theme-error)) 2px;
}

.why {
  margin-top: 0.7rem;
}
</style>
