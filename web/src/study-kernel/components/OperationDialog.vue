<script setup lang="ts">
import { ref, watch } from 'vue';
import { api, type Schemas } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useStudy } from '../composables/useStudy';
import ChangeList from './ChangeList.vue';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Shows what a change of many objects would do, and does it when told to. */
const props = defineProps<{ title: string; yes: string; operation: Schemas['OperationRequest']['operation'] | null }>();
const emit = defineEmits<{ done: []; closed: [] }>();
const model = useStudy();
const preview = ref<Schemas['ChangePreview'] | null>(null);
const { busy, problem, run } = useAction();
const at = { slug: model.slug };

watch(
  () => props.operation,
  (operation) => {
    preview.value = null;
    if (!operation) return;
    void run(async () => {
      preview.value = await api.post('/api/v1/studies/{slug}/operations/preview', at, { operation, baseRevision: 0 });
    });
  },
  { immediate: true },
);

async function confirm() {
  const operation = props.operation;
  const baseRevision = preview.value?.revision ?? 0;
  if (!operation) return;
  const done = await run(async () => {
    await api.post('/api/v1/studies/{slug}/operations', at, { operation, baseRevision });
    await model.catchUp();
  });
  if (done) emit('done');
}
</script>

<template>
  <ModalDialog
    :model-value="operation !== null"
    max-width="44rem"
    scrollable
    :aria-label="title"
    @update:model-value="$event || emit('closed')"
  >
    <v-card>
      <v-card-title>{{ title }}</v-card-title>
      <v-card-text>
        <v-progress-linear v-if="busy" indeterminate :aria-label="$t('loading')" />
        <ProblemNote :problem="problem" />
        <ChangeList v-if="preview" :changes="preview.changes" :total="preview.total" />
        <p v-if="preview?.total" class="quiet mt-3">{{ $t('difference.undoable') }}</p>
      </v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="emit('closed')">{{ $t('leave') }}</v-btn>
        <v-btn color="primary" variant="flat" :disabled="!preview?.total || busy" @click="confirm">{{ yes }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>
