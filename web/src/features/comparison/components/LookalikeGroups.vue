<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { computed, ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import { rowName } from '@/shared/taxon/rowNames';
import { useAction } from '@/shared/ui/useAction';
import WriteProblem from '@/shared/ui/WriteProblem.vue';

/** Groups of taxa that people mix up: those that the author named, and those that the matrix shows now. */
const props = defineProps<{ found: string[][]; chosen: string[] }>();
const emit = defineEmits<{ choose: [ids: string[]] }>();
const model = useStudy();
const { busy, problem, run } = useAction();
const name = ref('');
const study = computed(() => model.study.value);
const kept = computed(() => study.value?.scope.lookalikes ?? []);
const editable = computed(() => ['OWNER', 'EDITOR'].includes(study.value?.role ?? ''));
const same = (a: string[], b: string[]) => [...a].sort().join() === [...b].sort().join();
const news = computed(() => props.found.filter((ids) => !kept.value.some((g) => same(g.rows, ids))));
const canKeep = computed(
  () => editable.value && props.chosen.length > 1 && !kept.value.some((g) => same(g.rows, props.chosen)),
);
const label = (ids: string[]) =>
  ids
    .map((id) => study.value?.rows.find((r) => r.id === id))
    .map((row) => (row ? rowName(row) : ''))
    .join('; ');

async function write(lookalikes: Schemas['Lookalikes'][]) {
  const now = study.value;
  if (!now) return;
  await run(async () => {
    const body = {
      title: now.title,
      scope: { ...now.scope, lookalikes },
      baseRevision: model.baseRevision('scope'),
    };
    await api.put('/api/v1/studies/{slug}/scope', { slug: model.slug }, body);
    name.value = '';
    await model.reload();
  });
}

const keep = () => write([...kept.value, { name: name.value.trim(), rows: props.chosen, note: '' }]);
const forget = (group: Schemas['Lookalikes']) => write(kept.value.filter((g) => g.name !== group.name));
</script>

<template>
  <section v-if="found.length || kept.length || canKeep" class="groups" :aria-label="$t('apart.groups')">
    <h2>{{ $t('apart.groups') }}</h2>
    <form v-if="canKeep" class="keep" @submit.prevent="keep">
      <v-text-field v-model="name" :label="$t('apart.keepAs')" density="compact" hide-details />
      <v-btn type="submit" size="small" :disabled="!name.trim()" :loading="busy">{{ $t('apart.keep') }}</v-btn>
    </form>
    <WriteProblem :problem="problem" @theirs="model.reload()" @mine="keep" />
    <ul>
      <li v-for="group in kept" :key="group.name" class="kept">
        <button type="button" :aria-pressed="same(group.rows, chosen)" @click="emit('choose', group.rows)">
          <b>{{ group.name }}</b>
          <span class="members">{{ label(group.rows) }}</span>
        </button>
        <v-btn
          v-if="editable"
          :icon="mdiClose"
          size="x-small"
          variant="text"
          :aria-label="$t('apart.forget', { name: group.name })"
          @click="forget(group)"
        />
      </li>
      <li v-for="ids in news" :key="ids.join()">
        <button type="button" :aria-pressed="same(ids, chosen)" @click="emit('choose', ids)">
          <span class="members">{{ label(ids) }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.groups {
  margin-top: 1rem;
}

h2 {
  font-size: 1.05rem;
}

.keep {
  display: grid;
  gap: 0.3rem;
  margin-bottom: 0.5rem;
}

ul {
  list-style: none;
  padding: 0;
}

li {
  display: flex;
  align-items: start;
  border-top: 1px solid var(--rule);
}

button:not(.v-btn) {
  flex: 1;
  padding: 0.3rem 0;
  text-align: left;
  font-size: 0.9rem;
}

b,
.members {
  display: block;
}

.members {
  font-style: italic;
}

button[aria-pressed='true'] {
  font-weight: 700;
}
</style>
