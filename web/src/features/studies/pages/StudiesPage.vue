<script setup lang="ts">
import { mdiPlus, mdiTrayArrowDown } from '@mdi/js';
import { useInfiniteQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '@/api/client';
import { AccountMenu } from '@/features/account';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';

const studies = useInfiniteQuery({
  queryKey: ['studies'],
  queryFn: ({ pageParam }) => api.get('/api/v1/studies', { from: pageParam }),
  initialPageParam: 0,
  getNextPageParam: (last, pages) => {
    const shown = pages.reduce((sum, page) => sum + page.studies.length, 0);
    return shown < last.total ? shown : undefined;
  },
});
const lines = computed(() => studies.data.value?.pages.flatMap((page) => page.studies) ?? []);
const router = useRouter();
const beginning = ref(false);
const title = ref('');
const { busy, problem, run } = useAction();

function begin() {
  return run(async () => {
    const { slug } = await api.post('/api/v1/studies', {}, { title: title.value.trim() });
    await router.push(`/studies/${slug}/scope`);
  });
}
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
      <table v-if="lines.length" class="figures lines">
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
          <tr v-for="study in lines" :key="study.slug">
            <th scope="row">
              <router-link :to="`/studies/${study.slug}`">{{ study.title }}</router-link>
            </th>
            <td>{{ study.progress.taxa }}</td>
            <td>{{ study.progress.characters }}</td>
            <td>
              {{
                study.blind
                  ? $t('gauge.blind')
                  : $t('studies.of', { part: study.progress.scored, all: study.progress.cells })
              }}
            </td>
            <td>
              <a v-if="study.progress.editions" :href="`/k/${study.slug}`">{{ study.progress.editions }}</a>
              <template v-else>{{ $t('studies.none') }}</template>
            </td>
            <td>{{ $t(`role.${study.role}`) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="studies.isSuccess.value" class="empty">{{ $t('studies.empty') }}</p>
      <v-btn
        v-if="studies.hasNextPage.value"
        variant="text"
        :loading="studies.isFetchingNextPage.value"
        @click="studies.fetchNextPage()"
        >{{ $t('studies.more', { shown: lines.length, total: studies.data.value?.pages[0]?.total }) }}</v-btn
      >
      <div class="begin">
        <v-btn to="/import" color="primary" variant="flat" :prepend-icon="mdiTrayArrowDown">{{
          $t('studies.import')
        }}</v-btn>
        <v-btn v-if="!beginning" :prepend-icon="mdiPlus" @click="beginning = true">{{ $t('studies.begin') }}</v-btn>
      </div>
      <form v-if="beginning" @submit.prevent="begin" @keydown.esc="beginning = false">
        <v-text-field v-model="title" :label="$t('studies.newTitle')" autofocus hide-details />
        <v-btn type="submit" color="primary" variant="flat" :disabled="!title.trim()" :loading="busy">{{
          $t('studies.make')
        }}</v-btn>
        <v-btn variant="text" @click="beginning = false">{{ $t('close') }}</v-btn>
        <ProblemNote :problem="problem" />
      </form>
    </div>
  </v-main>
</template>

<style scoped>
.begin {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
  margin-top: 1rem;
}

form > :first-child {
  flex: 0 1 28rem;
}

header {
  display: flex;
  justify-content: space-between;
  align-items: center;
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
