<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '@/api/client';
import { useAgreement, useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import AskForm from '../components/AskForm.vue';
import SettleDialog from '../components/SettleDialog.vue';
import { figure, percent } from '../logic/cells';

/** Second scorers of a study: who is asked, how well scores agree, and what is to be settled. */
const model = useStudy();
const route = useRoute();
const router = useRouter();
const queries = useQueryClient();
const slug = model.slug;
const editable = computed(
  () => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? '') && !model.study.value?.blind,
);
const assigned = useQuery({
  queryKey: ['assignments', model.slug, computed(() => model.study.value?.revision)],
  queryFn: () => api.get('/api/v1/studies/{slug}/assignments', { slug }),
  placeholderData: (old) => old,
});
const agreement = useAgreement(model);
const { problem, run } = useAction();
const characterOf = (id: unknown) => model.study.value?.characters.find((c) => c.id === id);
const rowOf = (id: unknown) => model.study.value?.rows.find((r) => r.id === id);
const nameOf = (id: string) => [rowOf(id)?.label ?? id, rowOf(id)?.stage].filter(Boolean).join(', ');
const open = computed(() =>
  (agreement.data.value ?? []).flatMap((a) => a.toSettle.map((row) => ({ row, character: a.character }))),
);

function go(cell?: { row: string; character: string }) {
  void router.replace({ query: cell });
}

/** On to the next cell to settle, so that a sitting goes through them by keyboard. */
async function settled() {
  const at = open.value.findIndex((c) => c.row === route.query.row && c.character === route.query.character);
  go(open.value[at + 1]);
  await agreement.refetch();
}

async function end(id: number) {
  await run(() => api.post('/api/v1/studies/{slug}/assignments/{id}/finish', { slug, id }));
  await queries.invalidateQueries({ queryKey: ['assignments', model.slug] });
}
</script>

<template>
  <div class="page">
    <h1>{{ $t('second.title') }}</h1>
    <p class="quiet">{{ $t('second.lead') }}</p>
    <section aria-labelledby="assigned">
      <h2 id="assigned">{{ $t('second.assigned') }}</h2>
      <p v-if="!assigned.data.value?.length" class="quiet">{{ $t('second.nobody') }}</p>
      <ul>
        <li v-for="one in assigned.data.value ?? []" :key="one.id">
          <strong>{{ one.scorerName }}</strong>
          <span class="figures">{{ $t('second.progress', { scored: one.scored, cells: one.cells }) }}</span>
          <span class="quiet">{{
            one.finished ? $t('second.finished', { date: one.finished }) : $t('second.since', { date: one.given })
          }}</span>
          <span>{{ one.note }}</span>
          <v-btn
            v-if="one.mine && !one.finished"
            size="small"
            color="primary"
            variant="flat"
            :to="`/studies/${model.slug}/blind/${one.id}`"
            >{{ $t('second.work') }}</v-btn
          >
          <v-btn v-else-if="editable && !one.finished" size="small" variant="text" @click="end(one.id)">{{
            $t('second.end')
          }}</v-btn>
        </li>
      </ul>
      <ProblemNote :problem="problem ?? assigned.error.value" />
    </section>
    <AskForm v-if="editable" @asked="assigned.refetch" />
    <section v-if="!model.study.value?.blind" aria-labelledby="agreement">
      <h2 id="agreement">{{ $t('second.agreement') }}</h2>
      <p v-if="!agreement.data.value?.length" class="quiet">{{ $t('second.noAgreement') }}</p>
      <template v-else>
        <p class="quiet">{{ $t('second.figures') }}</p>
        <div class="scroll">
          <table>
            <thead>
              <tr>
                <th scope="col">{{ $t('second.character') }}</th>
                <th scope="col">{{ $t('second.cells') }}</th>
                <th scope="col">{{ $t('second.percent') }}</th>
                <th scope="col">{{ $t('second.kappa') }}</th>
                <th scope="col">{{ $t('second.alpha') }}</th>
                <th scope="col">{{ $t('second.toSettle') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in agreement.data.value" :key="one.character">
                <th scope="row">
                  {{ characterOf(one.character)?.label }}
                  <span class="quiet">{{ one.scorers.join(', ') }}</span>
                </th>
                <td class="figures">{{ one.cells }}</td>
                <td class="figures">{{ percent(one.percent) }}</td>
                <td class="figures">{{ figure(one.kappa) }}</td>
                <td class="figures">{{ figure(one.alpha) }}</td>
                <td>
                  <button
                    v-for="id in one.toSettle"
                    :key="id"
                    type="button"
                    class="link"
                    @click="go({ row: id, character: one.character })"
                  >
                    {{ nameOf(id) }}
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </section>
    <SettleDialog
      :row="editable ? rowOf(route.query.row) : undefined"
      :character="characterOf(route.query.character)"
      @settled="settled"
      @closed="go()"
    />
  </div>
</template>

<style scoped>
section {
  margin-top: 1.4rem;
}

ul {
  list-style: none;
  padding: 0;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  align-items: center;
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--rule);
}

.scroll {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th,
td {
  padding: 0.4rem 0.8rem 0.4rem 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
}

th .quiet {
  display: block;
  font-weight: 400;
  font-size: 0.85rem;
}

.link {
  text-decoration: underline;
  margin-right: 0.8rem;
}
</style>
