<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import { addressOf, api } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useStudy } from '@/study-kernel';
import { FILES, takesAll, wished, type FileKind } from '../logic/files';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Saves the study as a file of some kind; what such a file would not hold is told before it is made. */
const open = defineModel<boolean>({ required: true });
const model = useStudy();
const kind = ref<FileKind>('csv');
const whole = ref(false);
const asked = computed(() => wished(model.slug, kind.value, whole.value && takesAll(kind.value)));
/** Working out what a file of a large study leaves out means to write and read it; that is not done unasked. */
const MOST_CELLS = 200_000;
const large = computed(() => (model.study.value?.progress.cells ?? 0) > MOST_CELLS);
const losses = useQuery({
  queryKey: computed(() => ['losses', asked.value, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/export/losses', asked.value),
  enabled: computed(() => open.value && model.study.value !== undefined && !large.value),
});
watch(open, () => (whole.value = false));

function save() {
  window.location.assign(addressOf('/api/v1/studies/{slug}/export', asked.value));
  open.value = false;
}
</script>

<template>
  <ModalDialog v-model="open" max-width="640" scrollable :aria-label="$t('export.title')">
    <v-card :title="$t('export.title')">
      <v-card-text>
        <form id="export" @submit.prevent="save">
          <v-radio-group v-model="kind" :aria-label="$t('export.kind')" density="compact" hide-details>
            <v-radio v-for="one in FILES" :key="one" :value="one" :label="$t(`export.as.${one}`)" />
          </v-radio-group>
          <v-checkbox
            v-if="takesAll(kind)"
            v-model="whole"
            :label="$t('export.whole')"
            density="compact"
            hide-details
          />
        </form>
        <section aria-live="polite">
          <h3>{{ $t('export.losses') }}</h3>
          <p v-if="large" class="quiet">{{ $t('export.large') }}</p>
          <p v-else-if="losses.isFetching.value" class="quiet">{{ $t('export.looking') }}</p>
          <p v-else-if="losses.data.value?.length === 0">{{ $t('export.nothing') }}</p>
          <ul v-else>
            <li v-for="loss in losses.data.value ?? []" :key="loss">{{ loss }}</li>
          </ul>
          <ProblemNote :problem="losses.error.value" />
        </section>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="open = false">{{ $t('close') }}</v-btn>
        <v-btn type="submit" form="export" color="primary" variant="flat">{{ $t('export.save') }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
section {
  border-top: 1px solid var(--rule);
  margin-top: 0.8rem;
  padding-top: 0.6rem;
}

h3 {
  font-size: 1rem;
}

ul {
  padding-left: 1.2rem;
  font-size: 0.9rem;
}

form :deep(.v-selection-control-group) {
  display: block;
  columns: 15rem 2;
}
</style>
