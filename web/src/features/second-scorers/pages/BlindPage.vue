<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api, type Problem, type Schemas } from '@/api/client';
import { ScoringQueue, type QueueItem } from '@/features/matrix';
import { useStudy } from '@/study-kernel';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';
import { rowName } from '@/shared/taxon/rowNames';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { ownCell } from '../logic/cells';

/** Scoring without seeing what others scored. */
const props = defineProps<{ id: string }>();
const model = useStudy();
const router = useRouter();
const queries = useQueryClient();
const at = { slug: model.slug, id: Number(props.id) };
const key = ['blind', model.slug, props.id];
const query = useQuery({
  queryKey: key,
  queryFn: () => api.get('/api/v1/studies/{slug}/assignments/{id}', at),
  retry: false,
});
const { problem: failure, run } = useAction();
const problem = ref('');
const active = ref(0);
const byRow = ref(false);
const handing = ref(false);
const assignment = computed(() => query.data.value?.assignment);
const own = computed(() => new Map((query.data.value?.scores ?? []).map((s) => [`${s.row}.${s.character}`, s])));
const within = (ids: string[] | undefined, id: string) => !ids?.length || ids.includes(id);
const rows = computed(() => (model.study.value?.rows ?? []).filter((r) => within(assignment.value?.rows, r.id)));
const characters = computed(() =>
  (model.study.value?.characters ?? []).filter((c) => within(assignment.value?.characters, c.id)),
);
/** What the list goes through: the taxa of a character, or the characters of a taxon. */
const heading = computed(() => {
  const at = items.value[active.value];
  if (!at) return '';
  return byRow.value ? rowName(at.row) : at.character.label;
});

const items = computed<QueueItem[]>(() => {
  const item = (row: Schemas['StudyRow'], character: Schemas['StudyCharacter']): QueueItem => ({
    id: `${row.id}-${character.id}`,
    row,
    character,
    named: true,
    title: character.label,
    cell: ownCell(own.value.get(`${row.id}.${character.id}`), character.states),
  });
  return byRow.value
    ? rows.value.flatMap((r) => characters.value.map((c) => item(r, c)))
    : characters.value.flatMap((c) => rows.value.map((r) => item(r, c)));
});

async function score(item: QueueItem, text: string, doubtful = item.cell?.doubtful ?? false) {
  problem.value = '';
  const draft = {
    row: item.row.id,
    character: item.character.id,
    text,
    doubtful,
    note: item.cell?.note ?? '',
    baseRevision: item.cell?.revision ?? 0,
  };
  try {
    await api.put('/api/v1/studies/{slug}/assignments/{id}/score', at, draft);
    await queries.invalidateQueries({ queryKey: key });
  } catch (refused) {
    problem.value = (refused as Problem).message;
  }
}

async function handIn() {
  const done = await run(() => api.post('/api/v1/studies/{slug}/assignments/{id}/finish', at));
  if (!done) return;
  await model.reload();
  await router.push(`/studies/${model.slug}/second`);
}
</script>

<template>
  <div class="blind">
    <header>
      <div>
        <h1>{{ $t('second.blindTitle') }}</h1>
        <p class="quiet">{{ assignment?.note }} {{ $t('second.blindLead') }}</p>
      </div>
      <v-btn-toggle v-model="byRow" mandatory density="compact" variant="outlined">
        <v-btn :value="false">{{ $t('second.byCharacter') }}</v-btn>
        <v-btn :value="true">{{ $t('second.byRow') }}</v-btn>
      </v-btn-toggle>
      <span v-if="assignment" class="figures">{{
        $t('second.progress', { scored: own.size, cells: rows.length * characters.length })
      }}</span>
      <v-btn color="primary" variant="flat" :disabled="!own.size" @click="handing = true">{{
        $t('second.handIn')
      }}</v-btn>
    </header>
    <ProblemNote :problem="query.error.value ?? failure" />
    <!-- Before the assignment is known, every cell of the study would seem to be to score. -->
    <ScoringQueue
      v-if="assignment && items.length"
      v-model:active="active"
      :items="items"
      :heading="heading"
      :by-row="byRow"
      :editable="!assignment?.finished"
      :problem="problem"
      @score="score"
      @doubt="(item) => score(item, item.cell?.text ?? '', !item.cell?.doubtful)"
      @dismiss="problem = ''"
    />
    <ConfirmDialog
      v-model="handing"
      :title="$t('second.handIn')"
      :text="$t('second.handInText')"
      :yes="$t('second.handIn')"
      @confirm="handIn"
    />
  </div>
</template>

<style scoped>
.blind {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  height: 100%;
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1.4rem;
  align-items: center;
  padding: 0.7rem 1rem;
  border-bottom: 1px solid var(--rule);
}

header > div:first-child {
  flex: 1;
}
</style>
