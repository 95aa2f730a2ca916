<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { api } from '@/api/client';
import { useStudy } from '@/study-kernel';
import { rowChoices } from '@/shared/taxon/rowNames';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';

/** Asks a member to score some cells blind. */
const emit = defineEmits<{ asked: [] }>();
const model = useStudy();
const { busy, problem, run } = useAction();
const at = { slug: model.slug };
const wish = ref({ scorer: '', rows: [] as string[], characters: [] as string[], note: '' });
const members = useQuery({
  queryKey: ['members', model.slug],
  queryFn: () => api.get('/api/v1/studies/{slug}/members', at),
});
const scorers = computed(() =>
  (members.data.value ?? [])
    .filter((m) => m.role === 'SCORER' || m.role === 'EDITOR')
    .map((m) => ({ value: m.name, title: m.displayName })),
);
const rows = computed(() => rowChoices(model.study.value?.rows));
const characters = computed(() => (model.study.value?.characters ?? []).map((c) => ({ value: c.id, title: c.label })));
const cells = computed(
  () => (wish.value.rows.length || rows.value.length) * (wish.value.characters.length || characters.value.length),
);

async function ask() {
  const done = await run(() => api.post('/api/v1/studies/{slug}/assignments', at, wish.value));
  if (!done) return;
  wish.value = { scorer: '', rows: [], characters: [], note: '' };
  emit('asked');
}
</script>

<template>
  <form @submit.prevent="ask">
    <h2>{{ $t('second.give') }}</h2>
    <v-select v-model="wish.scorer" :items="scorers" :label="$t('second.scorer')" density="compact" hide-details />
    <v-autocomplete
      v-model="wish.rows"
      :items="rows"
      :label="$t('second.rows')"
      multiple
      chips
      clearable
      density="compact"
      variant="outlined"
      hide-details
    />
    <v-autocomplete
      v-model="wish.characters"
      :items="characters"
      :label="$t('second.characters')"
      multiple
      chips
      clearable
      density="compact"
      variant="outlined"
      hide-details
    />
    <v-text-field v-model="wish.note" :label="$t('second.note')" density="compact" hide-details />
    <ProblemNote :problem="problem" />
    <div class="buttons">
      <v-btn type="submit" color="primary" variant="flat" :disabled="!wish.scorer" :loading="busy">{{
        $t('second.ask')
      }}</v-btn>
      <span class="quiet figures">{{ $t('second.progress', { scored: 0, cells }) }}</span>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.7rem;
  max-width: 40rem;
  margin-bottom: 2rem;
}

.buttons {
  display: flex;
  gap: 1rem;
  align-items: center;
}
</style>
