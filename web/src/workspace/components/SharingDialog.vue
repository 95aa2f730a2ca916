<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { mdiClose } from '@mdi/js';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useStudy } from '@/study-kernel';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Who shares the study, and in which role; owners add members and change roles. */
type Role = Schemas['MemberResponse']['role'];

const open = defineModel<boolean>({ required: true });
const model = useStudy();
const { t } = useI18n();
const { busy, problem, run } = useAction();
const slug = model.slug;
const members = useQuery({
  queryKey: ['members', model.slug],
  queryFn: () => api.get('/api/v1/studies/{slug}/members', { slug }),
  enabled: open,
});
const owner = computed(() => model.study.value?.role === 'OWNER');
const roles = (['VIEWER', 'SCORER', 'EDITOR', 'OWNER'] as const).map((value) => ({
  value,
  title: t(`sharing.role.${value}`),
}));
const account = ref('');
const role = ref<Role>('SCORER');

function put(name: string, as: Role) {
  return run(async () => {
    await api.put('/api/v1/studies/{slug}/members', { slug }, { account: name, role: as });
    await members.refetch();
  });
}

function take(name: string) {
  return run(async () => {
    await api.delete('/api/v1/studies/{slug}/members/{account}', { slug, account: name });
    await members.refetch();
  });
}

async function add() {
  if (await put(account.value.trim(), role.value)) account.value = '';
}
</script>

<template>
  <ModalDialog v-model="open" max-width="560" :aria-label="$t('sharing.title')">
    <v-card :title="$t('sharing.title')">
      <v-card-text>
        <ul>
          <li v-for="member in members.data.value ?? []" :key="member.name">
            <span
              >{{ member.displayName }} <span class="quiet">{{ member.name }}</span></span
            >
            <v-select
              v-if="owner && member.role !== 'OWNER'"
              :model-value="member.role"
              :items="roles"
              :label="$t('sharing.as', { name: member.displayName })"
              density="compact"
              hide-details
              @update:model-value="put(member.name, $event)"
            />
            <span v-else>{{ $t(`sharing.role.${member.role}`) }}</span>
            <v-btn
              v-if="owner && member.role !== 'OWNER'"
              :icon="mdiClose"
              size="small"
              variant="text"
              :aria-label="$t('sharing.unshare', { name: member.displayName })"
              @click="take(member.name)"
            />
          </li>
        </ul>
        <form v-if="owner" @submit.prevent="add">
          <v-text-field v-model="account" :label="$t('sharing.account')" density="compact" hide-details autofocus />
          <v-select v-model="role" :items="roles" :label="$t('sharing.new')" density="compact" hide-details />
          <v-btn type="submit" color="primary" variant="flat" :disabled="!account.trim()" :loading="busy">{{
            $t('sharing.add')
          }}</v-btn>
        </form>
        <p v-else class="quiet">{{ $t('sharing.onlyOwners') }}</p>
        <ProblemNote :problem="problem ?? members.error.value" />
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="open = false">{{ $t('close') }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}

li,
form {
  display: grid;
  grid-template-columns: 1fr 11rem 2.5rem;
  gap: 0.8rem;
  align-items: center;
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--rule);
}

form {
  grid-template-columns: 1fr 9rem auto;
  border: 0;
  margin-top: 0.6rem;
}
</style>
