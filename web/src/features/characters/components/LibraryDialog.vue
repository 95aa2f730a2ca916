<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Ready characters with the drawings of their states, to be copied into the study. */
const open = defineModel<boolean>({ required: true });
const model = useStudy();
const { busy, problem, run } = useAction();
const wanted = ref('');
const chosen = ref<string[]>([]);
const library = useQuery({
  queryKey: ['library'],
  queryFn: () => api.get('/api/v1/library'),
  enabled: open,
  staleTime: Infinity,
});
const known = computed(() => new Set((model.study.value?.characters ?? []).map((c) => c.id)));
const drawings = computed(
  () => new Map((library.data.value?.pictures ?? []).map((p) => [p.id, `data:${p.mediaType};base64,${p.data}`])),
);
const groups = computed(() => {
  const byOrgan = new Map<string, Schemas['StudyCharacter'][]>();
  const words = wanted.value.toLowerCase();
  for (const one of library.data.value?.characters ?? []) {
    const said = `${one.label} ${one.organ} ${one.question} ${one.states.map((s) => s.label).join(' ')}`;
    if (said.toLowerCase().includes(words)) byOrgan.set(one.organ, [...(byOrgan.get(one.organ) ?? []), one]);
  }
  return [...byOrgan];
});

async function copy() {
  const done = await run(async () => {
    const body = { characters: chosen.value, baseRevision: model.study.value?.revision ?? 0 };
    await api.post('/api/v1/studies/{slug}/library', { slug: model.slug }, body);
    await model.reload();
  });
  if (!done) return;
  chosen.value = [];
  open.value = false;
}
</script>

<template>
  <ModalDialog v-model="open" max-width="1080" scrollable :aria-label="$t('library.title')">
    <v-card :title="$t('library.title')">
      <v-card-text>
        <p class="quiet">{{ $t('library.lead') }}</p>
        <v-text-field
          v-model="wanted"
          :label="$t('library.find')"
          class="mt-2"
          density="compact"
          hide-details
          autofocus
        />
        <ProblemNote :problem="library.error.value ?? problem" />
        <section v-for="[organ, members] in groups" :key="organ">
          <h3>{{ organ }}</h3>
          <label v-for="one in members" :key="one.id" class="one" :class="{ on: chosen.includes(one.id) }">
            <input v-model="chosen" type="checkbox" :value="one.id" :disabled="known.has(one.id)" />
            <span class="words">
              <strong>{{ one.label }}</strong>
              <span class="quiet">{{ known.has(one.id) ? $t('library.known') : one.question }}</span>
            </span>
            <span class="drawings">
              <span v-for="state in one.states" :key="state.id" class="drawing">
                <img :src="drawings.get(state.picture)" alt="" />
                {{ state.label }}
              </span>
              <span v-if="!one.states.length" class="quiet">{{ $t(`type.${one.type}`) }} {{ one.unit }}</span>
            </span>
          </label>
        </section>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="open = false">{{ $t('close') }}</v-btn>
        <v-btn color="primary" variant="flat" :disabled="!chosen.length" :loading="busy" @click="copy">{{
          $t('library.copy', { n: chosen.length }, chosen.length)
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
h3 {
  margin-top: 1rem;
  border-bottom: 2px solid rgb(var(--v-theme-primary));
}

h3::first-letter {
  text-transform: uppercase;
}

.one {
  display: grid;
  grid-template-columns: 1.5rem 15rem minmax(0, 1fr);
  gap: 0.8rem;
  align-items: center;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--rule);
}

.one.on {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 10%, transparent);
}

.words {
  display: grid;
}

.drawings {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

.drawing {
  display: grid;
  justify-items: center;
  font-size: 0.8rem;
}

img {
  width: 5.4rem;
  height: 4rem;
  background: #fdfaf2;
  border: 1px solid var(--rule);
}

@media (max-width: 700px) {
  .one {
    grid-template-columns: 1.5rem 1fr;
  }

  .drawings {
    grid-column: 2;
  }
}
</style>
