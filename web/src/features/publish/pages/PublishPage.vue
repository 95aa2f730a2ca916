<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { api, Problem } from '@/api/client';
import { FailingNote } from '@/features/dangers';
import { CoverPreview } from '@/features/edition';
import { ChangeList, useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useSession } from '@/stores/session';
import KeysInEdition from '../components/KeysInEdition.vue';
import OpenPoints from '../components/OpenPoints.vue';

const model = useStudy();
const session = useSession();
const queries = useQueryClient();
const authors = ref(session.account?.displayName ?? '');
const words = ref<Record<string, string>>({});
const published = ref<number | null>(null);
const { busy, problem, run } = useAction();
const gate = useQuery({
  queryKey: computed(() => ['gate', model.slug, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/gate', { slug: model.slug }),
});
const wish = computed(() => ({
  authors: authors.value
    .split(';')
    .map((a) => a.trim())
    .filter(Boolean),
  words: words.value,
}));
const typed = refDebounced(
  computed(() => JSON.stringify(wish.value)),
  600,
);
const cover = useQuery({
  queryKey: computed(() => ['cover', model.slug, model.study.value?.revision, typed.value]),
  queryFn: () => api.post('/api/v1/studies/{slug}/cover', { slug: model.slug }, wish.value),
  placeholderData: keepPreviousData,
});
const differing = ref(false);
const since = useQuery({
  queryKey: computed(() => ['since', model.slug, model.study.value?.revision, gate.data.value?.editions.length]),
  queryFn: () => api.get('/api/v1/studies/{slug}/editions/changes', { slug: model.slug }),
  enabled: differing,
});
/** A danger that fails in several ways is declared once. */
const isFirst = (i: number) => {
  const all = gate.data.value?.findings ?? [];
  return all.findIndex((f) => f.blocking && f.danger === all[i]?.danger) === i;
};
const mayPublish = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));

watch(
  () => gate.data.value,
  (data) => {
    for (const finding of data?.findings ?? []) words.value[finding.danger] ??= '';
  },
  { immediate: true },
);

/** Publishes; while the server is still making the key, it is asked again. */
async function ask(): Promise<number> {
  for (;;) {
    try {
      const made = await api.post('/api/v1/studies/{slug}/editions', { slug: model.slug }, wish.value);
      return made.number;
    } catch (failure) {
      if (!(failure instanceof Problem && failure.code === 'key-in-progress')) throw failure;
    }
  }
}

function publish() {
  return run(async () => {
    published.value = await ask();
    await model.reload();
    await queries.invalidateQueries({ queryKey: ['gate', model.slug] });
  });
}
</script>

<template>
  <div v-if="gate.data.value" class="page publish">
    <section aria-labelledby="gate">
      <h2 id="gate">{{ $t('publish.gate') }}</h2>
      <OpenPoints :missing="gate.data.value.missing" />
      <h3>{{ $t('dangers.title') }}</h3>
      <p>{{ $t('publish.rule') }}</p>
      <p v-if="!gate.data.value.findings.length" class="good">{{ $t('publish.clear') }}</p>
      <article
        v-for="(f, i) in gate.data.value.findings"
        :key="`${f.danger}/${f.kind}/${f.months.join()}`"
        class="finding"
        :class="{ told: !f.blocking }"
      >
        <h3>{{ f.dangerName }}</h3>
        <FailingNote :failing="f" />
        <p v-if="f.blocking && f.confirmable">
          <router-link :to="`/studies/${model.slug}/dangers?row=${f.danger}`">{{
            $t('publish.confirm', { n: f.confirmable }, f.confirmable)
          }}</router-link>
        </p>
        <v-textarea
          v-if="f.blocking && isFirst(i)"
          v-model="words[f.danger]"
          :label="$t('publish.declare')"
          :readonly="!mayPublish"
          rows="2"
          auto-grow
          hide-details
        />
      </article>
      <KeysInEdition />
      <ul v-if="gate.data.value.missing.length" class="missing">
        <li v-for="m in gate.data.value.missing" :key="m">
          {{ $t('publish.missing', { field: $t(`scope.${m}`) }) }}
          <router-link :to="`/studies/${model.slug}/scope`">{{ $t('stage.scope') }}</router-link>
        </li>
      </ul>
      <form v-if="mayPublish" @submit.prevent="publish">
        <v-text-field v-model="authors" :label="$t('publish.authors')" hide-details />
        <ProblemNote :problem="problem" />
        <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{ $t('publish.go') }}</v-btn>
        <p v-if="published" role="status">
          {{ $t('publish.done', { n: published }) }}
          <a :href="`/k/${model.slug}/${published}`">{{ `/k/${model.slug}/${published}` }}</a>
        </p>
      </form>
      <p v-else class="quiet">{{ $t('publish.notYou') }}</p>
    </section>
    <section aria-labelledby="cover">
      <h2 id="cover">{{ $t('publish.cover') }}</h2>
      <ProblemNote :problem="cover.error.value" />
      <CoverPreview v-if="cover.data.value" :html="cover.data.value.html" />
      <details
        v-if="gate.data.value.editions.length"
        class="since"
        @toggle="differing = ($event.target as HTMLDetailsElement).open"
      >
        <summary>{{ $t('publish.since', { n: gate.data.value.editions[0]?.number }) }}</summary>
        <ProblemNote :problem="since.error.value" />
        <v-progress-linear v-if="since.isFetching.value" indeterminate :aria-label="$t('loading')" />
        <ChangeList
          v-if="since.data.value?.changes"
          :changes="since.data.value.changes.changes"
          :total="since.data.value.changes.total"
        />
      </details>
      <h2>{{ $t('publish.editions') }}</h2>
      <p>{{ $t('publish.never') }}</p>
      <ul class="editions figures">
        <li v-for="e in gate.data.value.editions" :key="e.number">
          <a :href="`/k/${model.slug}/${e.number}`">{{ $t('publish.edition', { n: e.number }) }}</a>
          · {{ e.publishedAt }} · {{ e.who }} · {{ $t(`status.${e.status}`) }} {{ e.reason }}
        </li>
        <li v-if="!gate.data.value.editions.length" class="quiet">{{ $t('publish.none') }}</li>
      </ul>
    </section>
  </div>
  <v-progress-linear v-else indeterminate :aria-label="$t('loading')" />
</template>

<style scoped>
.publish {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(16rem, 1fr);
  gap: 2.5rem;
}

.since {
  margin: 1rem 0 1.5rem;
}

.finding {
  border-left: 4px solid rgb(var(--v-theme-error));
  padding: 0.25rem 0 0.25rem 1rem;
  margin: 1rem 0;
}

.finding.told {
  border-left-color: var(--rule);
}

.good {
  color: rgb(var(--v-theme-success));
  font-weight: 600;
}

.missing {
  color: rgb(var(--v-theme-error));
}

form {
  display: grid;
  gap: 0.9rem;
  justify-items: start;
  margin-top: 1.5rem;
}

form .v-text-field {
  width: 100%;
}

.editions {
  list-style: none;
  padding: 0;
}

@media (max-width: 900px) {
  .publish {
    grid-template-columns: 1fr;
  }
}
</style>
