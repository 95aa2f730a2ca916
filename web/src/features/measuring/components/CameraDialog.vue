<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { still, useCameras } from '../composables/useCameras';
import { useStream } from '../composables/useInstruments';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** What a camera sees, one of this device or the simulated one; a press keeps it as a picture of the specimen. */
const props = defineProps<{ specimen: Schemas['Specimen']; simulated: boolean }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ added: [picture: string] }>();
const { t } = useI18n();
const model = useStudy();
const { busy, problem, run } = useAction();
const SIMULATED = 'simulated';
/** Any camera of this device, until the browser has told which there are. */
const ANY = 'any';
const chosen = ref(ANY);
const frame = ref('');
const objective = ref(10);
const video = useTemplateRef<HTMLVideoElement>('video');
const seeing = ref(false);
const simulation = useStream('frame', (data) => (frame.value = data));
const { cameras, current, stream, failed, open: openCamera, close: closeCamera } = useCameras();

const objectives = [10, 20, 40].map((value) => ({ value, title: t('measure.camera.objective', { n: value }) }));
const choices = computed(() => [
  ...(cameras.value.length
    ? cameras.value.map((c, i) => ({ value: c.id, title: c.label || t('measure.camera.nth', { n: i + 1 }) }))
    : [{ value: ANY, title: t('measure.camera.own') }]),
  ...(props.simulated ? [{ value: SIMULATED, title: t('measure.camera.simulated') }] : []),
]);
/** What browsers open of themselves has its own name among the cameras. */
const shown = computed(() => (chosen.value === ANY && cameras.value.length ? current.value : chosen.value));
/** Another specimen lies on another slide. */
const slide = computed(() => [...props.specimen.id].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 100_000, 7));
const shows = computed(() =>
  chosen.value === SIMULATED
    ? t('measure.camera.microscope', { code: props.specimen.code, n: objective.value })
    : t('measure.shows', { code: props.specimen.code }),
);
const ready = computed(() => (chosen.value === SIMULATED ? frame.value !== '' : seeing.value));

function begin() {
  frame.value = '';
  seeing.value = false;
  problem.value = null;
  simulation.close();
  closeCamera();
  if (!open.value) return;
  if (chosen.value === SIMULATED)
    simulation.begin(`/api/v1/instruments/camera?magnification=${objective.value}&slide=${slide.value}`);
  else void openCamera(chosen.value === ANY ? undefined : chosen.value);
}
watch([open, chosen, objective, slide], begin);
watch([stream, video], ([of, on]) => {
  if (on) on.srcObject = of;
});

async function picture(): Promise<File> {
  const blob =
    chosen.value === SIMULATED
      ? new Blob([Uint8Array.from(atob(frame.value), (c) => c.charCodeAt(0))], { type: 'image/jpeg' })
      : await still(video.value as HTMLVideoElement);
  return new File([blob], 'camera.jpg', { type: 'image/jpeg' });
}

async function take() {
  const done = await run(async () => {
    const form = new FormData();
    form.append('file', await picture());
    form.append('shows', shows.value);
    form.append('specimen', props.specimen.id);
    const written = await api.post('/api/v1/studies/{slug}/pictures', { slug: model.slug }, form);
    await model.reload();
    emit('added', written.id);
  });
  if (done) open.value = false;
}
</script>

<template>
  <ModalDialog v-model="open" max-width="820">
    <v-card :title="$t('measure.camera.title', { code: specimen.code })">
      <v-card-text>
        <div class="choice">
          <v-select
            :model-value="shown"
            :items="choices"
            :label="$t('measure.camera.which')"
            density="compact"
            hide-details
            @update:model-value="chosen = $event"
          />
          <v-select
            v-if="chosen === SIMULATED"
            v-model="objective"
            :items="objectives"
            :label="$t('measure.camera.with')"
            density="compact"
            hide-details
          />
        </div>
        <template v-if="chosen === SIMULATED">
          <img v-if="frame" class="seen" :src="`data:image/jpeg;base64,${frame}`" :alt="shows" />
          <p v-else class="waiting" role="status">
            {{ $t(simulation.lost.value ? 'measure.camera.lost' : 'loading') }}
          </p>
        </template>
        <template v-else>
          <p v-if="failed" class="waiting" role="alert">{{ $t(`measure.camera.no.${failed}`) }}</p>
          <video
            v-show="!failed"
            ref="video"
            class="seen"
            autoplay
            muted
            playsinline
            :aria-label="shows"
            @playing="seeing = true"
          />
        </template>
        <p class="quiet">{{ $t('measure.camera.hint') }}</p>
        <ProblemNote :problem="problem" />
      </v-card-text>
      <v-card-actions>
        <v-btn v-if="failed" @click="begin">{{ $t('measure.camera.again') }}</v-btn>
        <v-btn @click="open = false">{{ $t('close') }}</v-btn>
        <v-btn color="primary" variant="flat" :loading="busy" :disabled="!ready" @click="take">{{
          $t('measure.camera.take')
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
.choice {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  gap: 0.6rem;
}

.seen,
.waiting {
  display: block;
  width: min(100%, 70vh);
  aspect-ratio: 4 / 3;
  margin-top: 0.6rem;
  background: #e8e5d8;
  object-fit: contain;
}
</style>
