<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useStream } from '../composables/useInstruments';

/** What a microscope camera sees; a press keeps it as a picture of the specimen. */
const props = defineProps<{ specimen: Schemas['Specimen'] }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ added: [picture: string] }>();
const { t } = useI18n();
const model = useStudy();
const { busy, problem, run } = useAction();
const frame = ref('');
const objective = ref(10);
const stream = useStream('frame', (data) => (frame.value = data));
const objectives = [10, 20, 40].map((value) => ({ value, title: t('measure.camera.objective', { n: value }) }));
/** Another specimen lies on another slide. */
const slide = computed(() => [...props.specimen.id].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 100_000, 7));

watch([open, objective, slide], () => {
  frame.value = '';
  if (open.value) stream.begin(`/api/v1/instruments/camera?magnification=${objective.value}&slide=${slide.value}`);
  else stream.close();
});

async function take() {
  const bytes = Uint8Array.from(atob(frame.value), (c) => c.charCodeAt(0));
  const form = new FormData();
  form.append('file', new File([bytes], 'camera.jpg', { type: 'image/jpeg' }));
  form.append('shows', t('measure.camera.shows', { code: props.specimen.code, n: objective.value }));
  form.append('specimen', props.specimen.id);
  const done = await run(async () => {
    const written = await api.post('/api/v1/studies/{slug}/pictures', { slug: model.slug }, form);
    await model.reload();
    emit('added', written.id);
  });
  if (done) open.value = false;
}
</script>

<template>
  <v-dialog v-model="open" max-width="820">
    <v-card :title="$t('measure.camera.title')">
      <v-card-text>
        <v-select
          v-model="objective"
          :items="objectives"
          :label="$t('measure.camera.which')"
          density="compact"
          hide-details
        />
        <img
          v-if="frame"
          class="seen"
          :src="`data:image/jpeg;base64,${frame}`"
          :alt="$t('measure.camera.shows', { code: specimen.code, n: objective })"
        />
        <p v-else class="waiting" role="status">{{ $t(stream.lost.value ? 'measure.camera.lost' : 'loading') }}</p>
        <p class="quiet">{{ $t('measure.camera.hint') }}</p>
        <ProblemNote :problem="problem" />
      </v-card-text>
      <v-card-actions>
        <v-btn @click="open = false">{{ $t('close') }}</v-btn>
        <v-btn color="primary" variant="flat" :loading="busy" :disabled="!frame" @click="take">{{
          $t('measure.camera.take')
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.seen,
.waiting {
  display: block;
  width: min(100%, 70vh);
  aspect-ratio: 4 / 3;
  margin-top: 0.6rem;
  background: #e8e5d8;
}
</style>
