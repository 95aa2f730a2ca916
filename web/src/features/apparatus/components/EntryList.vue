<script setup lang="ts" generic="T extends { id: string }">
import { mdiDeleteOutline, mdiPlus } from '@mdi/js';
import { ref, type Ref } from 'vue';
import { useStudy } from '@/features/study';
import WriteProblem from '@/shared/WriteProblem.vue';
import { useAction } from '@/shared/useAction';

/** Small objects of a study that are read as a list and edited one at a time. */
const props = defineProps<{
  title: string;
  lead: string;
  add: string;
  entries: T[];
  kind: 'term' | 'reference' | 'claim' | 'picture';
  /** What a new one begins with; without it, new ones come another way. */
  blank?: () => T;
  editable: boolean;
}>();
const model = useStudy();
const { busy, problem, run } = useAction();
const draft = ref(null) as Ref<T | null>;
let seen = 0;

function begin(entry: T) {
  draft.value = JSON.parse(JSON.stringify(entry)) as T;
  seen = entry.id ? model.seen(`${props.kind}/${entry.id}`) : 0;
  problem.value = null;
}

const path = `/api/studies/${encodeURIComponent(model.slug)}/${props.kind}s`;

async function save(over?: number) {
  const done = await run(async () => {
    await model.send('PUT', path, { [props.kind]: draft.value, seen: over ?? seen });
    await model.reload();
  });
  if (done) draft.value = null;
}

async function remove(id: string) {
  const done = await run(async () => {
    await model.send('DELETE', `${path}/${id}?seen=${model.seen(`${props.kind}/${id}`)}`);
    await model.reload();
  });
  if (done) draft.value = null;
}

async function theirs() {
  await model.reload();
  const now = props.entries.find((e) => e.id === draft.value?.id);
  if (now) begin(now);
}
</script>

<template>
  <section :aria-label="title">
    <header>
      <h2>{{ title }}</h2>
      <v-btn v-if="editable && blank" size="small" :prepend-icon="mdiPlus" @click="begin(blank())">{{ add }}</v-btn>
      <slot name="add" />
    </header>
    <p class="quiet">{{ lead }}</p>
    <ul>
      <li v-for="entry in entries" :key="entry.id">
        <button v-if="editable" type="button" @click="begin(entry)"><slot name="line" :entry="entry" /></button>
        <slot v-else name="line" :entry="entry" />
      </li>
    </ul>
    <form v-if="draft" class="shelf" @submit.prevent="save()">
      <slot name="form" :draft="draft" />
      <WriteProblem :problem="problem" @theirs="theirs" @mine="save" />
      <div class="shelf-buttons">
        <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{ $t('save') }}</v-btn>
        <v-btn variant="text" @click="draft = null">{{ $t('discard') }}</v-btn>
        <v-spacer />
        <v-btn v-if="draft.id" color="error" :prepend-icon="mdiDeleteOutline" @click="remove(draft.id)">{{
          $t('remove')
        }}</v-btn>
      </div>
    </form>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 2.5rem;
}

header {
  display: flex;
  gap: 1rem;
  align-items: center;
}

ul {
  list-style: none;
  padding: 0;
}

li {
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--rule);
}

li button {
  text-align: left;
  width: 100%;
}

form {
  display: grid;
  gap: 0.7rem;
  padding-top: 0.6rem;
  margin-top: 1rem;
}
</style>
