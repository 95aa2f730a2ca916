<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query';
import { computed } from 'vue';
import { api } from '@/api/client';
import { isOpen, useFindings, useStudy, type Finding } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import FindingLine from '../components/FindingLine.vue';
import { byKind } from '../logic/findings';

const model = useStudy();
const queries = useQueryClient();
const { problem, run } = useAction();
const findings = useFindings(
  model.slug,
  computed(() => model.study.value?.revision),
);
const editable = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const open = computed(() => (findings.data.value ?? []).filter(isOpen));
const meant = computed(() => (findings.data.value ?? []).filter((f) => !isOpen(f)));
const slug = model.slug;

function write(send: () => Promise<unknown>) {
  return run(async () => {
    try {
      await send();
    } finally {
      await queries.invalidateQueries({ queryKey: ['findings', model.slug] });
    }
  });
}

function accept(finding: Finding, reason: string) {
  return write(() => api.put('/api/v1/studies/{slug}/findings/accepted', { slug }, { key: finding.key, reason }));
}

/** What is certain is done at once; undo takes it back. */
function correct(finding: Finding) {
  return write(async () => {
    await api.post('/api/v1/studies/{slug}/findings/corrections', { slug }, { key: finding.key });
    await model.reload();
  });
}

function reopen(finding: Finding) {
  return write(() => api.delete('/api/v1/studies/{slug}/findings/accepted', { slug, key: finding.key }));
}
</script>

<template>
  <div class="page">
    <h1>{{ $t('checks.title') }}</h1>
    <p class="quiet">{{ $t('checks.lead') }}</p>
    <p v-if="findings.isPending.value && !findings.error.value" role="status" class="quiet">
      {{ $t('checks.looking') }}
    </p>
    <ProblemNote :problem="problem ?? findings.error.value" />
    <p v-if="findings.data.value && !open.length" role="status">{{ $t('checks.none') }}</p>
    <section v-for="[kind, members] in byKind(open)" :key="kind" :aria-labelledby="`kind-${kind}`">
      <h2 :id="`kind-${kind}`">
        {{ $t(`finding.${kind}`) }} <span class="quiet figures">{{ members.length }}</span>
      </h2>
      <ul>
        <FindingLine
          v-for="finding in members"
          :key="finding.key"
          :finding="finding"
          :slug="model.slug"
          :editable="editable"
          @accept="accept(finding, $event)"
          @correct="correct(finding)"
        />
      </ul>
    </section>
    <details v-if="meant.length">
      <summary>{{ $t('checks.accepted', { n: meant.length }, meant.length) }}</summary>
      <ul>
        <FindingLine
          v-for="finding in meant"
          :key="finding.key"
          :finding="finding"
          :slug="model.slug"
          :editable="editable"
          @reopen="reopen(finding)"
        />
      </ul>
    </details>
  </div>
</template>

<style scoped>
section {
  margin-top: 1.6rem;
}

h2 {
  padding-bottom: 0.25rem;
  border-bottom: 2px solid rgb(var(--v-theme-primary));
}

ul {
  list-style: none;
  padding: 0;
}

details {
  margin-top: 2rem;
}
</style>
