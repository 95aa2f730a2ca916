<script setup lang="ts">
import { mdiTrayArrowDown } from '@mdi/js';
import { useQuery } from '@tanstack/vue-query';
import { api, type Schemas } from '@/api/client';
import { AccountMenu } from '@/features/account';
import ProblemNote from '@/shared/ProblemNote.vue';

const studies = useQuery({
  queryKey: ['studies'],
  queryFn: () => api.get<Schemas['StudyLine'][]>('/api/studies'),
});
</script>

<template>
  <v-main>
    <div class="page">
      <header>
        <h1>{{ $t('studies.title') }}</h1>
        <AccountMenu />
      </header>
      <p class="quiet">{{ $t('studies.lead') }}</p>
      <ProblemNote :problem="studies.error.value" />
      <v-progress-linear v-if="studies.isPending.value" indeterminate :aria-label="$t('loading')" />
      <table v-if="studies.data.value?.length" class="figures">
        <thead>
          <tr>
            <th scope="col">{{ $t('studies.study') }}</th>
            <th scope="col">{{ $t('studies.taxa') }}</th>
            <th scope="col">{{ $t('studies.characters') }}</th>
            <th scope="col">{{ $t('studies.scored') }}</th>
            <th scope="col">{{ $t('studies.editions') }}</th>
            <th scope="col">{{ $t('studies.role') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="study in studies.data.value" :key="study.slug">
            <th scope="row">
              <router-link :to="`/studies/${study.slug}`">{{ study.title }}</router-link>
            </th>
            <td>{{ study.gauges.taxa }}</td>
            <td>{{ study.gauges.characters }}</td>
            <td>{{ $t('studies.of', { part: study.gauges.scored, all: study.gauges.cells }) }}</td>
            <td>
              <router-link v-if="study.gauges.editions" :to="`/k/${study.slug}`">{{
                study.gauges.editions
              }}</router-link>
              <template v-else>{{ $t('studies.none') }}</template>
            </td>
            <td>{{ $t(`role.${study.role}`) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="studies.isSuccess.value" class="empty">{{ $t('studies.empty') }}</p>
      <v-btn to="/import" color="primary" variant="flat" :prepend-icon="mdiTrayArrowDown">{{
        $t('studies.import')
      }}</v-btn>
    </div>
  </v-main>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

table {
  width: 100%;
  border-collapse: collapse;
  margin: 1.5rem 0;
}

th,
td {
  text-align: left;
  padding: 0.6rem 0.75rem 0.6rem 0;
  border-bottom: 1px solid var(--rule);
}

thead th {
  font-weight: 600;
  color: var(--faint);
}

tbody th {
  font-family: var(--serif);
  font-size: 1.15rem;
  font-weight: 600;
}

.empty {
  margin: 2rem 0;
}
</style>
