<script setup lang="ts" generic="T extends { id: string }">
import { mdiPlus } from '@mdi/js';
import { onMounted, ref, type Ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import { isLeaving, mayLose, useTyped } from '@/shared/ui/leaving';
import { useAction } from '@/shared/ui/useAction';
import { useStudy } from '../composables/useStudy';
import EntryForm from './EntryForm.vue';

/** Small objects of a study that are read as a list and edited one at a time. */
const props = defineProps<{
  title: string;
  lead: string;
  add: string;
  entries: T[];
  kind: 'term' | 'reference' | 'claim' | 'picture' | 'specimen';
  /** What a new one begins with; without it, new ones come another way. */
  blank?: () => T;
  editable: boolean;
}>();
/** Which one is open, for pages that keep it in their address. */
const chosen = defineModel<string>('chosen', { default: '' });
const model = useStudy();
const { busy, problem, run } = useAction();
const draft = ref(null) as Ref<T | null>;
let baseRevision = 0;
let original = '';
const dirty = () => draft.value !== null && JSON.stringify(draft.value) !== original;
let saving: Promise<unknown> | undefined;
useTyped(dirty, () => saving);

/** Opens another entry, unless what is typed in this one would be lost. */
async function open(entry: T) {
  if (!dirty() || (await mayLose())) begin(entry);
}

function begin(entry: T) {
  draft.value = JSON.parse(JSON.stringify(entry)) as T;
  original = JSON.stringify(draft.value);
  baseRevision = entry.id ? model.baseRevision(`${props.kind}/${entry.id}`) : 0;
  problem.value = null;
  chosen.value = entry.id;
}

function close() {
  draft.value = null;
  chosen.value = '';
}

onMounted(() => {
  const linked = props.entries.find((e) => e.id === chosen.value);
  if (linked && props.editable) begin(linked);
});

function save(over?: number) {
  saving = write(over);
}

async function write(over?: number) {
  const done = await run(async () => {
    // Which of these objects it is, and that its request names it so, the type checker cannot follow.
    const body = { [props.kind]: draft.value, baseRevision: over ?? baseRevision } as unknown as Schemas['TermRequest'];
    await api.put(`/api/v1/studies/{slug}/${props.kind as 'term'}s`, { slug: model.slug }, body);
    // It is saved, though the page does not show it yet.
    original = JSON.stringify(draft.value);
    await model.reload();
  });
  if (done && isLeaving()) draft.value = null;
  else if (done) close();
}

async function remove(id: string) {
  const done = await run(async () => {
    const at = { slug: model.slug, id, baseRevision: model.baseRevision(`${props.kind}/${id}`) };
    await api.delete(`/api/v1/studies/{slug}/${props.kind}s/{id}`, at);
    await model.reload();
  });
  if (done) close();
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
      <v-btn v-if="editable && blank" size="small" :prepend-icon="mdiPlus" @click="open(blank())">{{ add }}</v-btn>
      <slot name="add" />
    </header>
    <p class="quiet">{{ lead }}</p>
    <slot name="above" />
    <EntryForm
      v-if="draft && !draft.id"
      :problem="problem"
      :busy="busy"
      :removable="false"
      @save="save"
      @theirs="theirs"
      @discard="close"
    >
      <slot name="form" :draft="draft" />
    </EntryForm>
    <ul>
      <li v-for="entry in entries" :key="entry.id">
        <button v-if="editable" type="button" @click="open(entry)"><slot name="line" :entry="entry" /></button>
        <slot v-else name="line" :entry="entry" />
        <EntryForm
          v-if="draft?.id === entry.id"
          :problem="problem"
          :busy="busy"
          removable
          @save="save"
          @theirs="theirs"
          @discard="close"
          @remove="remove(entry.id)"
        >
          <slot name="form" :draft="draft" />
        </EntryForm>
      </li>
    </ul>
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

li > button {
  text-align: left;
  width: 100%;
}
</style>
