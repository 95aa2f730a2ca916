<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js';
import { computed, ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import TitleDialog from './TitleDialog.vue';

/** What can be done with a study as a whole, by whoever may. */
const props = defineProps<{ study: Schemas['StudyLine']; which: 'CURRENT' | 'ARCHIVED' | 'DELETED' }>();
const emit = defineEmits<{ done: [] }>();
const asking = ref<'rename' | 'address' | 'copy' | 'delete' | null>(null);
const { busy, problem, run } = useAction();
const slug = computed(() => ({ slug: props.study.slug }));
const owner = computed(() => props.study.role === 'OWNER');
const deletable = computed(() => owner.value && props.study.progress.editions === 0);

async function act(what: () => Promise<unknown>) {
  const went = await run(async () => {
    await what();
  });
  if (!went) return;
  asking.value = null;
  emit('done');
}

const archive = (archived: boolean) => act(() => api.put('/api/v1/studies/{slug}/archived', slug.value, { archived }));
const restore = () => act(() => api.delete('/api/v1/deleted-studies/{slug}', slug.value));

/** Everything else of its scope stays as it is. */
async function rename(title: string) {
  const { scope, revisions } = await api.get('/api/v1/studies/{slug}', slug.value);
  await api.put('/api/v1/studies/{slug}/scope', slug.value, { title, scope, baseRevision: revisions.scope ?? 0 });
}

function titled(title: string) {
  if (asking.value === 'rename') return act(() => rename(title));
  if (asking.value === 'address')
    return act(() => api.put('/api/v1/studies/{slug}/address', slug.value, { address: title }));
  if (asking.value === 'copy') return act(() => api.post('/api/v1/studies/{slug}/copy', slug.value, { title }));
  return act(() => api.delete('/api/v1/studies/{slug}', { ...slug.value, title }));
}
</script>

<template>
  <v-menu>
    <template #activator="{ props: activator }">
      <v-btn
        v-bind="activator"
        :icon="mdiDotsVertical"
        size="small"
        variant="text"
        :loading="busy"
        :aria-label="$t('studies.menu', { title: study.title })"
      />
    </template>
    <v-list density="compact">
      <v-list-item v-if="which === 'DELETED'" :title="$t('studies.restore')" @click="restore" />
      <template v-else>
        <v-list-item v-if="owner || study.role === 'EDITOR'" :title="$t('studies.rename')" @click="asking = 'rename'" />
        <v-list-item
          v-if="owner"
          :title="$t('studies.address')"
          :subtitle="deletable ? undefined : $t('studies.notDeletable')"
          :disabled="!deletable"
          @click="asking = 'address'"
        />
        <v-list-item v-if="!study.blind" :title="$t('studies.copy')" @click="asking = 'copy'" />
        <template v-if="owner">
          <v-list-item v-if="which === 'CURRENT'" :title="$t('studies.archive')" @click="archive(true)" />
          <v-list-item v-else :title="$t('studies.unarchive')" @click="archive(false)" />
          <v-list-item
            :title="$t('studies.delete')"
            :subtitle="deletable ? undefined : $t('studies.notDeletable')"
            :disabled="!deletable"
            @click="asking = 'delete'"
          />
        </template>
      </template>
    </v-list>
  </v-menu>
  <ProblemNote v-if="!asking" :problem="problem" />
  <TitleDialog
    v-if="asking"
    :what="asking"
    :title="study.title"
    :slug="study.slug"
    :busy="busy"
    :problem="problem"
    @give="titled"
    @closed="asking = null"
  />
</template>
