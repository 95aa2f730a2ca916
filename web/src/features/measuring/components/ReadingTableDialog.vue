<script setup lang="ts">
import { computed, ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Brings in a table of readings: what it would add is shown first. */
const open = defineModel<boolean>({ required: true });
const model = useStudy();
const { busy, problem, run } = useAction();
const file = ref<File | null>(null);
const preview = ref<Schemas['TablePreview'] | null>(null);
const at = { slug: model.slug };
const blocked = computed(() => preview.value?.problems.some((p) => p.blocking) || !preview.value?.readings);

const form = (of: File) => {
  const form = new FormData();
  form.append('file', of);
  return form;
};

async function choose(chosen: File | File[] | null | undefined) {
  file.value = (Array.isArray(chosen) ? chosen[0] : chosen) ?? null;
  preview.value = null;
  const of = file.value;
  if (of)
    await run(
      async () => void (preview.value = await api.post('/api/v1/studies/{slug}/readings/table/preview', at, form(of))),
    );
}

async function take() {
  const of = file.value;
  if (!of) return;
  const done = await run(async () => {
    await api.post('/api/v1/studies/{slug}/readings/table', at, form(of));
    await model.catchUp();
  });
  if (done) {
    open.value = false;
    file.value = null;
    preview.value = null;
  }
}
</script>

<template>
  <ModalDialog v-model="open" max-width="640">
    <v-card :title="$t('measure.table.title')">
      <v-card-text>
        <p>{{ $t('measure.table.lead') }}</p>
        <v-file-input
          :model-value="file ?? undefined"
          accept=".csv,.tsv,.txt,.xlsx"
          :label="$t('measure.table.file')"
          density="compact"
          hide-details
          @update:model-value="choose"
        />
        <ProblemNote :problem="problem" />
        <template v-if="preview">
          <p class="found">
            <strong>{{ $t('measure.table.found', preview) }}</strong>
          </p>
          <p v-if="preview.unknownSpecimens.length">
            {{ $t('measure.table.unknownSpecimens', { codes: preview.unknownSpecimens.slice(0, 12).join(', ') }) }}
          </p>
          <p v-if="preview.unknownCharacters.length">
            {{ $t('measure.table.unknownCharacters', { names: preview.unknownCharacters.slice(0, 12).join(', ') }) }}
          </p>
          <ul v-if="preview.problems.length">
            <li v-for="(p, i) in preview.problems" :key="i">
              {{ $t('measure.table.problem', { row: p.row, heading: p.heading, text: p.text }) }}
            </li>
          </ul>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="open = false">{{ $t('close') }}</v-btn>
        <v-btn color="primary" variant="flat" :loading="busy" :disabled="blocked" @click="take">{{
          $t('measure.table.take')
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
.found {
  margin-top: 0.8rem;
}

ul {
  max-height: 14rem;
  overflow: auto;
}
</style>
