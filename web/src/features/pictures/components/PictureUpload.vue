<script setup lang="ts">
import { ref } from 'vue';
import { api } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';

/** Adds a picture to the study: chosen, dropped or pasted, with what it shows and whose it is. */
const props = defineProps<{ shows?: string; specimen?: string }>();
const emit = defineEmits<{ added: [id: string] }>();
const model = useStudy();
const { busy, problem, run } = useAction();
const file = ref<File | null>(null);
const said = ref({ shows: props.shows ?? '', credit: '', licence: '' });
const keepPlace = ref(false);

function take(list: FileList | null | undefined) {
  const first = list?.[0];
  if (first) file.value = first;
}

async function add() {
  const chosen = file.value;
  if (!chosen) return;
  await run(async () => {
    const form = new FormData();
    form.append('file', chosen);
    Object.entries(said.value).forEach(([name, value]) => form.append(name, value));
    form.append('keepPlace', String(keepPlace.value));
    if (props.specimen) form.append('specimen', props.specimen);
    const written = await api.post('/api/v1/studies/{slug}/pictures', { slug: model.slug }, form);
    await model.reload();
    file.value = null;
    emit('added', written.id);
  });
}
</script>

<template>
  <form
    class="upload"
    @submit.prevent="add"
    @dragover.prevent
    @drop.prevent="take($event.dataTransfer?.files)"
    @paste="take($event.clipboardData?.files)"
  >
    <v-file-input
      :model-value="file ?? undefined"
      accept="image/png,image/jpeg,image/webp,image/svg+xml"
      :label="$t('picture.file')"
      :hint="$t('picture.hint')"
      persistent-hint
      density="compact"
      @update:model-value="file = Array.isArray($event) ? ($event[0] ?? null) : ($event ?? null)"
    />
    <v-text-field v-model="said.shows" :label="$t('picture.shows')" density="compact" hide-details />
    <v-text-field v-model="said.credit" :label="$t('picture.credit')" density="compact" hide-details />
    <v-text-field v-model="said.licence" :label="$t('picture.licence')" density="compact" hide-details />
    <v-checkbox v-model="keepPlace" :label="$t('picture.keepPlace')" density="compact" hide-details />
    <ProblemNote :problem="problem" />
    <v-btn type="submit" color="primary" variant="flat" :disabled="!file || !said.shows.trim()" :loading="busy">{{
      $t('picture.add')
    }}</v-btn>
  </form>
</template>

<style scoped>
.upload {
  display: grid;
  gap: 0.6rem;
}

.upload .v-btn {
  justify-self: start;
}
</style>
