<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Schemas } from '@/api/client';
import { letterOf } from '@/features/key';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { asText } from '@/shared/ui/asText';
import CopyLink from '@/shared/ui/CopyLink.vue';
import {
  decidingText,
  leadToMost,
  pairAt,
  wayBetween,
  otherWays,
  placeOf,
  stepsIn,
  textOf,
  wayOf,
  type Point,
  type Step,
} from '../logic/path';
import type { Outcome } from '../logic/points';
import KeyEnd from './KeyEnd.vue';
import LeadCard from './LeadCard.vue';
import NameCheck from './NameCheck.vue';
import PointByPoint from './PointByPoint.vue';
import ReadingTrail from './ReadingTrail.vue';
import StillPossible from './StillPossible.vue';

/** A couplet key read one couplet at a time. The way is in the address, so that each step can be gone back on, kept and shared. */
const props = defineProps<{
  view: Schemas['KeyView'];
  characters: Schemas['StudyCharacter'][];
  plain: boolean;
  taxonLink: string;
  outside: Schemas['OutsideTaxon'][];
  /** What is read, to keep answers apart. */
  of: string;
  /** Address of the newest edition: what a couplet separates holds over editions, its number does not. */
  address: string;
  /** The key of all taxa, where this is another one that may stop at a group. */
  wholeKey?: Schemas['KeyView'];
  /** Which key of the edition it is; 0: that of all taxa. */
  number: number;
  identify: (request: Schemas['IdentifyRequest']) => Promise<Schemas['IdentifyResponse']>;
}>();
const route = useRoute();
const router = useRouter();

/** By the way that was taken, or to the couplet that separates two taxa. */
const steps = computed(() => {
  const [one = '', other = ''] = asText(route.query.between).split(',');
  return route.query.at === undefined && other
    ? (wayBetween(props.view, one, other) ?? [])
    : stepsIn(asText(route.query.at));
});
const place = computed(() => placeOf(props.view, steps.value));
const pair = computed(() => (place.value.couplet ? pairAt(props.view, place.value.couplet) : undefined));
const here = computed(() => ({
  path: props.address,
  query: { view: 'key', key: route.query.key, between: pair.value?.join(',') },
}));
/** Where a key goes no further, that of all taxa may. */
const beyond = computed(() => {
  const [one, other] = place.value.terminal?.names ?? [];
  const way = props.wholeKey && one && other ? wayBetween(props.wholeKey, one.row, other.row) : undefined;
  return way && { query: { view: 'key', at: textOf(way) || undefined } };
});
const character = computed(() => props.characters.find((c) => c.id === place.value.couplet?.character));
const question = computed(() => {
  const of = character.value;
  return of ? (props.plain && of.plainQuestion) || of.question || of.label : '';
});
const means = computed(() => {
  const method = character.value?.method ?? '';
  return ['', 'eye', 'naked eye'].includes(method.toLowerCase()) ? '' : method;
});
const others = computed(() => otherWays(props.view, place.value.steps));

const go = (next: Step[]) =>
  router.push({ query: { ...route.query, between: undefined, at: textOf(next) || undefined } });

function take(lead: number, doubtful = false) {
  const couplet = place.value.couplet;
  if (couplet) void go([...place.value.steps, { couplet: couplet.number, lead, doubtful }]);
}

function byPoints({ lead, doubtful }: Outcome, points: Point[]) {
  const couplet = place.value.couplet;
  if (couplet) void go([...place.value.steps, { couplet: couplet.number, lead, doubtful, points }]);
}

const examined = computed(() => wayOf(props.number, place.value.steps));
const ends = computed(() => place.value.terminal?.names ?? []);
const chosen = ref('');
const checked = computed(() => ends.value.find((n) => n.row === chosen.value) ?? ends.value[0]);
const told = ref(false);

/** Both ways stay open; the one to more names is tried first. */
function cannotTell() {
  if (place.value.couplet) take(leadToMost(props.view, place.value.couplet), true);
}

const heading = useTemplateRef<HTMLElement>('heading');
watch(
  () => route.query.at,
  async () => {
    await nextTick();
    // Whoever reads by keyboard or by ear begins at the next question.
    heading.value?.focus({ preventScroll: true });
    heading.value?.scrollIntoView({ block: 'start' });
  },
);
</script>

<template>
  <div class="reading">
    <ReadingTrail :view="view" :steps="place.steps" :plain="plain" @go="go" />
    <template v-if="place.couplet">
      <h2 ref="heading" tabindex="-1">
        <span class="number figures">{{ place.couplet.number }}</span>{{ ' ' }}
        <GlossaryText v-if="question" :text="question" />
        <template v-else>{{ $t('reading.which') }}</template>
      </h2>
      <p v-if="character?.note || means" class="quiet">
        <span v-if="means" class="means">{{ $t('reading.means', { means }) }}</span>{{ ' ' }}
        <GlossaryText v-if="character?.note" :text="character.note" />
      </p>
      <div class="leads">
        <LeadCard
          v-for="(lead, l) in place.couplet.leads"
          :key="`${place.couplet.number}${l}`"
          :letter="letterOf(l)"
          :lead="lead"
          :states="character?.states ?? []"
          :plain="plain"
          @take="take(l)"
        />
      </div>
      <p class="tell">
        <v-btn variant="outlined" @click="cannotTell">{{ $t('reading.cannotTell') }}</v-btn>
        <span class="quiet">{{ $t('reading.cannotTellMeans') }}</span>
      </p>
      <PointByPoint
        v-if="(place.couplet.leads[0]?.statements.length ?? 0) > 1"
        :key="place.couplet.number"
        :couplet="place.couplet"
        :characters="characters"
        :plain="plain"
        :fallback="leadToMost(view, place.couplet)"
        @go="byPoints"
      />
      <p class="quiet">{{ $t('edition.oneKey') }}</p>
      <p v-if="pair" class="no-print">
        <CopyLink :to="here" :label="$t('reading.linkHere')" />
      </p>
    </template>
    <template v-else-if="place.terminal">
      <h2 ref="heading" tabindex="-1" class="end-heading">{{ $t('reading.end') }}</h2>
      <KeyEnd :terminal="place.terminal" :taxon-link="taxonLink" :told="told" />
      <p v-if="beyond">
        {{ $t('reading.stopped') }} <router-link :to="beyond">{{ $t('reading.beyond') }}</router-link>
      </p>
      <section v-if="checked" class="final">
        <h3>{{ $t('check.title') }}</h3>
        <p v-if="ends.length > 1" class="which">
          <button v-for="n in ends" :key="n.row" type="button" :aria-pressed="n === checked" @click="chosen = n.row">
            <TaxonName :label="n.label" :stage="n.stage" />
          </button>
        </p>
        <NameCheck
          :key="checked.row"
          :row="checked.row"
          :way="examined"
          :characters="characters"
          :outside="outside"
          :plain="plain"
          :of="of"
          :identify="identify"
          @told="told = true"
        />
      </section>
      <section v-if="others.length" class="others">
        <h3>{{ $t('reading.astray') }}</h3>
        <p class="quiet">{{ $t('reading.astrayMeans') }}</p>
        <ul>
          <li v-for="way in others.slice(0, 4)" :key="textOf(way.steps)">
            <router-link :to="{ query: { ...route.query, between: undefined, at: textOf(way.steps) } }"
              >{{ way.couplet }}{{ letterOf(way.lead) }} {{ decidingText(view, way, plain) }}</router-link
            >
            <span v-if="way.doubtful" class="quiet">{{ $t('reading.doubtful') }}</span>
          </li>
        </ul>
      </section>
      <p>
        <router-link :to="{ query: { ...route.query, between: undefined, at: undefined } }">{{
          $t('reading.again')
        }}</router-link>
      </p>
    </template>
    <StillPossible :view="view" :place="place" :taxon-link="taxonLink" />
  </div>
</template>

<style scoped>
h2 {
  font-size: 1.35rem;
  line-height: 1.3;
  margin: 0.6rem 0 0.2rem;
  outline-offset: 4px;
  scroll-margin-top: 0.75rem;
}

.number {
  margin-right: 0.5rem;
  color: rgb(var(--v-theme-primary));
}

.means {
  margin-right: 0.4em;
}

.leads {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 17rem), 1fr));
  gap: 0.75rem;
  margin: 0.8rem 0;
}

.tell {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.9rem;
}

.tell .v-btn {
  min-height: 2.75rem;
}

.which {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}

.which button {
  min-height: 2.75rem;
  padding: 0 0.75rem;
  border: 1px solid var(--rule);
  border-radius: 3px;
}

.which button[aria-pressed='true'] {
  border-color: rgb(var(--v-theme-primary));
  box-shadow: inset 0 -3px rgb(var(--v-theme-primary));
}

.others ul {
  padding-left: 1.1rem;
}

.others a {
  display: inline-block;
  min-height: 2rem;
}
</style>
