<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api } from '@/api/client';
import { ChangeList, useStudy } from '@/study-kernel';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';

/** Named states of a study: taken, compared, brought back. */
defineProps<{ editable: boolean }>();
const model = useStudy();
const queries = useQueryClient();
const { t } = useI18n();
const { busy, problem, run } = useAction();
const slug = model.slug;
const NOW = 0;
const name = ref('');
const from = ref<number | null>(null);
const to = ref(NOW);
const restoring = ref(false);
const snapshots = useQuery({
  queryKey: ['snapshots', model.slug],
  queryFn: () => api.get('/api/v1/studies/{slug}/snapshots', { slug }),
});
const items = computed(() => [
  { value: NOW, title: t('snapshots.now') },
  ...(snapshots.data.value ?? []).map((s) => ({ value: s.id, title: s.name })),
]);
const difference = useQuery({
  queryKey: computed(() => ['difference', model.slug, from.value, to.value, model.study.value?.revision]),
  queryFn: () =>
    api.get('/api/v1/studies/{slug}/snapshots/difference', { slug, from: from.value ?? NOW, to: to.value }),
  enabled: computed(() => from.value !== null),
});

watch(snapshots.data, (all) => (from.value ??= all?.[0]?.id ?? null), { immediate: true });

function take() {
  return run(async () => {
    const all = await api.post('/api/v1/studies/{slug}/snapshots', { slug }, { name: name.value });
    queries.setQueryData(['snapshots', slug], all);
    name.value = '';
  });
}

function restore() {
  return run(async () => {
    const baseRevision = model.study.value?.revision ?? 0;
    const id = from.value ?? NOW;
    await api.post('/api/v1/studies/{slug}/snapshots/{id}/restore', { slug, id }, { baseRevision });
    await model.reload();
  });
}
</script>

<template>
  <section :aria-label="$t('snapshots.title')">
    <h2>{{ $t('snapshots.title') }}</h2>
    <p class="quiet">{{ $t('snapshots.lead') }}</p>
    <form v-if="editable" class="line" @submit.prevent="take">
      <v-text-field v-model="name" :label="$t('snapshots.name')" density="compact" hide-details />
      <v-btn type="submit" :disabled="!name.trim()" :loading="busy">{{ $t('snapshots.take') }}</v-btn>
    </form>
    <ProblemNote :problem="problem" />
    <ul class="figures">
      <li v-for="s in snapshots.data.value" :key="s.id">
        <strong>{{ s.name }}</strong> · {{ s.who }} · {{ s.at.slice(0, 16).replace('T', ' ') }}
      </li>
    </ul>
    <template v-if="snapshots.data.value?.length">
      <div class="line">
        <v-select v-model="from" :items="items" :label="$t('snapshots.from')" hide-details />
        <v-select v-model="to" :items="items" :label="$t('snapshots.to')" hide-details />
        <v-btn v-if="editable && from && to === 0" :disabled="!difference.data.value?.total" @click="restoring = true">
          {{ $t('snapshots.restore') }}
        </v-btn>
      </div>
      <ChangeList
        v-if="difference.data.value"
        :changes="difference.data.value.changes"
        :total="difference.data.value.total"
      />
    </template>
    <ConfirmDialog
      v-model="restoring"
      :title="$t('snapshots.restore')"
      :text="$t('snapshots.restoring')"
      :yes="$t('snapshots.restore')"
      @confirm="restore"
    />
  </section>
</template>

<style scoped>
.line {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin: 0.8rem 0;
}

ul {
  list-style: none;
  padding: 0;
}
</style>
