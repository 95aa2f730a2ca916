<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query';
import { computed } from 'vue';
import { api } from '@/api/client';
import { isOpen, useFindings, useStudy, type Finding } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import FindingLine from '../components/FindingLine.vue';
import { byPlace } from '../logic/findings';

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
const places = computed(() => byPlace(open.value));
const anchor = (stage: string) => `at-${stage.replace('/', '-')}`;

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
    <nav v-if="places.length" :aria-label="$t('checks.places')">
      <a v-for="place in places" :key="place.stage" :href="`#${anchor(place.stage)}`"
        >{{ $t(`stage.${place.stage}`) }} <span class="figures">{{ place.count }}</span></a
      >
    </nav>
    <section v-for="place in places" :key="place.stage" :aria-labelledby="anchor(place.stage)">
      <h2 :id="anchor(place.stage)">
        {{ $t(`stage.${place.stage}`) }} <span class="quiet figures">{{ place.count }}</span>
      </h2>
      <table>
        <tbody v-for="{ kind, findings: members } in place.kinds" :key="kind">
          <tr>
            <th colspan="2" scope="rowgroup">
              {{ $t(`finding.${kind}`) }} <span class="quiet figures">{{ members.length }}</span>
            </th>
          </tr>
          <FindingLine
            v-for="finding in members"
            :key="finding.key"
            :finding="finding"
            :slug="model.slug"
            :editable="editable"
            @accept="accept(finding, $event)"
            @correct="correct(finding)"
          />
        </tbody>
      </table>
    </section>
    <details v-if="meant.length">
      <summary>{{ $t('checks.accepted', { n: meant.length }, meant.length) }}</summary>
      <table>
        <tbody>
          <FindingLine
            v-for="finding in meant"
            :key="finding.key"
            :finding="finding"
            :slug="model.slug"
            :editable="editable"
            @reopen="reopen(finding)"
          />
        </tbody>
      </table>
    </details>
  </div>
</template>

<style scoped>
section {
  margin-top: 1.4rem;
}

h2 {
  padding-bottom: 0.15rem;
  border-bottom: 2px solid rgb(var(--v-theme-primary));
}

nav {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.4rem;
}

table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.95rem;
}

th {
  padding: 0.6rem 0 0.15rem;
  text-align: left;
  font-weight: 600;
}

details {
  margin-top: 2rem;
}
</style>
