<script setup lang="ts">
import { mdiPlus, mdiSprout, mdiTrayArrowDown } from '@mdi/js';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { AccountMenu } from '@/features/account';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import StudyMenu from '../components/StudyMenu.vue';

const route = useRoute();
const router = useRouter();
const find = ref('');
const sought = refDebounced(find, 250);
const inAddress = <T extends string>(name: string, values: readonly T[], usual: T) =>
  computed<T>({
    get: () => values.find((v) => v === route.query[name]) ?? usual,
    set: (value) => void router.replace({ query: { ...route.query, [name]: value === usual ? undefined : value } }),
  });
const WHICH = ['CURRENT', 'ARCHIVED', 'DELETED'] as const;
const ORDER = ['CHANGED', 'TITLE'] as const;
const which = inAddress('which', WHICH, 'CURRENT');
const order = inAddress('order', ORDER, 'CHANGED');
const { t } = useI18n();
const choices = WHICH.map((value) => ({ value, title: t(`studies.which.${value}`) }));
const orders = ORDER.map((value) => ({ value, title: t(`studies.order.${value}`) }));

const studies = useInfiniteQuery({
  queryKey: computed(() => ['studies', sought.value, which.value, order.value]),
  queryFn: ({ pageParam }) =>
    api.get('/api/v1/studies', { from: pageParam, find: sought.value, which: which.value, order: order.value }),
  initialPageParam: 0,
  placeholderData: keepPreviousData,
  getNextPageParam: (last, pages) => {
    const shown = pages.reduce((sum, page) => sum + page.studies.length, 0);
    return shown < last.total ? shown : undefined;
  },
});
const lines = computed(() => studies.data.value?.pages.flatMap((page) => page.studies) ?? []);
const beginning = ref(false);
const title = ref('');
const { busy, problem, run } = useAction();

const begin = () =>
  run(async () => {
    const { slug } = await api.post('/api/v1/studies', {}, { title: title.value.trim() });
    await router.push(`/studies/${slug}/scope`);
  });
const trySample = () =>
  run(async () => {
    const { slug } = await api.post('/api/v1/studies/sample');
    await router.push(`/studies/${slug}/score`);
  });
const stepOf = (step: Schemas['NextStep']) =>
  t(
    `step.kind.${step.kind}`,
    { subject: step.subject, n: step.count, month: step.month ? t(`month.${step.month}`) : '' },
    step.count,
  );
const nothing = computed(() => studies.isSuccess.value && !lines.value.length);
</script>

<template>
  <v-main>
    <div class="page">
      <header>
        <h1>{{ $t('studies.title') }}</h1>
        <AccountMenu />
      </header>
      <p class="quiet">{{ $t('studies.lead') }}</p>
      <div class="find" role="search">
        <v-text-field v-model="find" :label="$t('studies.find')" density="compact" hide-details clearable />
        <v-select v-model="order" :items="orders" :label="$t('studies.orderLabel')" hide-details />
        <v-select v-model="which" :items="choices" :label="$t('studies.whichLabel')" hide-details />
      </div>
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
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="study in lines" :key="study.slug">
            <th scope="row">
              <template v-if="which === 'DELETED'">{{ study.title }}</template>
              <router-link v-else :to="`/studies/${study.slug}`">{{ study.title }}</router-link>
              <p class="quiet">
                {{ $t(study.who ? 'studies.changedBy' : 'studies.madeOn', { day: study.changed, who: study.who }) }}
                <template v-if="study.next && which === 'CURRENT'">· {{ stepOf(study.next) }}</template>
              </p>
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
            <td class="do"><StudyMenu :study="study" :which="which" @done="studies.refetch()" /></td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="nothing" class="empty">
        {{ sought ? $t('studies.notFound', { find: sought }) : $t(`studies.none${which}`) }}
      </p>
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
        <v-btn :prepend-icon="mdiSprout" :loading="busy" @click="trySample">{{ $t('studies.sample') }}</v-btn>
        <v-btn variant="text" to="/help">{{ $t('help.title') }}</v-btn>
      </div>
      <form v-if="beginning" @submit.prevent="begin" @keydown.esc="beginning = false">
        <v-text-field v-model="title" :label="$t('studies.newTitle')" autofocus hide-details />
        <v-btn type="submit" color="primary" variant="flat" :disabled="!title.trim()" :loading="busy">{{
          $t('studies.make')
        }}</v-btn>
        <v-btn variant="text" @click="beginning = false">{{ $t('close') }}</v-btn>
      </form>
      <ProblemNote :problem="problem" />
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
  overflow-wrap: anywhere;
  font-family: var(--serif);
  font-size: 1.15rem;
  font-weight: 600;
}

tbody th p {
  margin: 0;
  max-width: 34rem;
  font-family: var(--sans);
  font-size: 0.88rem;
  font-weight: 400;
}

.find {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  margin: 1rem 0;
}

.find > * {
  flex: 1 1 10rem;
}

.find > :first-child {
  flex-grow: 2;
}

.empty {
  margin: 2rem 0;
}

/* A phone has room for what a study is called, what is next, and what can be done with it. */
@media (max-width: 700px) {
  tr > :nth-child(n + 2):not(:last-child) {
    display: none;
  }
}
</style>
