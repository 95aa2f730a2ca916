<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import { useRouter, useRoute } from 'vue-router';
import type { Schemas } from '@/api/client';
import { AnswerCard, DangerNote, useAnswers } from '@/features/identify';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import DescriptionPoint from './DescriptionPoint.vue';

/** A name held against what was seen: whether it fits, what dangerous thing is not ruled out, and what is still to look at. */
const props = defineProps<{
  row: string;
  /** The way through a couplet key that led here: what was examined on it counts. */
  way?: Schemas['WayRequest'];
  characters: Schemas['StudyCharacter'][];
  outside: Schemas['OutsideTaxon'][];
  plain: boolean;
  of: string;
  identify: (request: Schemas['IdentifyRequest']) => Promise<Schemas['IdentifyResponse']>;
}>();
/** What dangerous thing is not ruled out is told here now. */
const emit = defineEmits<{ told: [] }>();
const route = useRoute();
const router = useRouter();
const answers = useAnswers(() => props.characters);
const looking = ref<string | null>(null);

const request = computed<Schemas['IdentifyRequest']>(() => ({
  ...answers.request.value,
  // A name is held against all that was seen, however answers are used elsewhere.
  strikeOut: false,
  check: props.row,
  ...(props.way ? { way: props.way } : {}),
}));
const result = useQuery({
  queryKey: computed(() => ['identify', props.of, request.value]),
  queryFn: () => props.identify(request.value),
  placeholderData: keepPreviousData,
  retry: false,
});
watch(
  () => result.data.value !== undefined,
  (told) => told && emit('told'),
  { immediate: true },
);
const check = computed(() => result.data.value?.check);
const points = computed(() => check.value?.points ?? []);
const count = (verdict: Schemas['CheckPointView']['verdict']) =>
  points.value.filter((p) => p.verdict === verdict).length;
const figures = computed(() => ({
  agrees: count('AGREES'),
  disagrees: count('DISAGREES'),
  open: count('NOT_EXAMINED'),
}));
const examined = computed(() => figures.value.agrees + figures.value.disagrees);
const own = computed(() => result.data.value?.standings.find((s) => s.name.row === props.row));
/** Who fits what was seen better, if somebody does clearly. */
const better = computed(() => {
  const first = result.data.value?.standings[0];
  const mine = own.value;
  return examined.value &&
    first &&
    mine &&
    first.taxon.row !== mine.taxon.row &&
    first.namePosterior > 2 * mine.namePosterior
    ? first
    : undefined;
});
const settled = computed(() => result.data.value?.conclusion === 'SETTLED' && !better.value);
const strange = computed(() => result.data.value?.conclusion === 'OUTSIDE');
const byId = computed(() => new Map(props.characters.map((c) => [c.id, c])));
const contradicted = computed(() =>
  (result.data.value?.contradicted ?? []).flatMap((c) => byId.value.get(c)?.label ?? []),
);
const clauses = computed(
  () => new Map((result.data.value?.said ?? []).map((s) => [s.character, props.plain ? s.plain : s.text])),
);
const mustShow = computed(() => points.value.some((p) => p.mustShow && p.verdict === 'NOT_EXAMINED'));
/** What tells it from its nearest lookalikes first; the rest of the description folded until somebody wants it. */
const first = computed(() => points.value.filter((p) => p.mustShow || p.recognises || p.verdict === 'DISAGREES'));
const rest = computed(() => points.value.filter((p) => !first.value.includes(p)));
const groups = computed(() => [
  { title: 'check.recognises', points: first.value, folded: false },
  { title: 'check.rest', points: rest.value, folded: true },
]);

function agrees(point: Schemas['CheckPointView']) {
  looking.value = null;
  if (point.states.length) void answers.show(point.character, point.states);
  else if (typeof point.value === 'number')
    void answers.measure(point.character, point.value, { spread: point.spread ?? 0 });
}

/** The one question that would rule a danger out, with what was seen so far. */
function ask(label: string) {
  const character = props.characters.find((c) => c.label === label);
  looking.value = character?.id ?? null;
  if (character && !points.value.some((p) => p.character === character.id))
    void router.push({ query: { ...route.query, view: 'any-order' } });
  else show(`point-${character?.id}`);
}

/** Also where it is folded away. */
function show(id: string) {
  const point = document.getElementById(id);
  point?.closest('details')?.setAttribute('open', '');
  point?.scrollIntoView({ block: 'center' });
}
</script>

<template>
  <section class="check">
    <ProblemNote :problem="result.error.value" />
    <template v-if="result.data.value && check">
      <div class="verdict" aria-live="polite">
        <p>
          <strong>{{ $t('check.figures', figures) }}</strong>
          {{ settled ? $t('check.settled') : '' }}
        </p>
        <p v-if="better" class="bad">
          {{ $t('check.better') }} <TaxonName :label="better.name.label" :stage="better.name.stage" />.
        </p>
        <p v-if="strange" class="bad">{{ $t('check.outside') }}</p>
        <p v-if="check.outOfSeason">{{ $t('check.outOfSeason', { month: $t(`month.${answers.month.value}`) }) }}</p>
        <p v-if="mustShow">{{ $t('check.open') }}</p>
        <p v-if="contradicted.length">{{ $t('check.contradicted', { characters: contradicted.join('; ') }) }}</p>
      </div>
      <DangerNote :margins="result.data.value.margins" :outside="outside" :labels="byId" @ask="ask" />
      <component :is="g.folded ? 'details' : 'div'" v-for="g in groups" v-show="g.points.length" :key="g.title">
        <summary v-if="g.folded">{{ $t(g.title, { n: g.points.length }) }}</summary>
        <h3 v-else>{{ $t(g.title) }}</h3>
        <ul>
          <DescriptionPoint
            v-for="p in g.points"
            :id="`point-${p.character}`"
            :key="p.character"
            :point="p"
            :seen="p.implied ? '' : (clauses.get(p.character) ?? '')"
            :own="answers.given(p.character) !== undefined"
            :plain="plain"
            @agrees="agrees(p)"
            @look="looking = looking === p.character ? null : p.character"
            @withdraw="answers.withdraw(p.character)"
          >
            <AnswerCard
              v-if="looking === p.character && byId.has(p.character)"
              :character="byId.get(p.character)!"
              :answers="answers"
              :plain="plain"
              @answered="looking = null"
            />
          </DescriptionPoint>
        </ul>
      </component>
    </template>
    <v-progress-linear v-else-if="result.isPending.value" indeterminate :aria-label="$t('loading')" />
  </section>
</template>

<style scoped>
.verdict {
  border-left: 4px solid rgb(var(--v-theme-primary));
  padding: 0.25rem 0.9rem;
  margin: 0.5rem 0;
}

.verdict p {
  margin: 0.2rem 0;
}

.bad {
  font-weight: 600;
  color: rgb(var(--v-theme-error));
}

h3 {
  margin-top: 0.9rem;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

summary {
  cursor: pointer;
  min-height: 2.75rem;
  padding: 0.6rem 0;
}
</style>
