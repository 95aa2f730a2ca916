<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter, type LocationQueryRaw } from 'vue-router';
import { useStudy } from '@/study-kernel';
import { isDangerous } from '@/shared/taxon/hazards';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { toQuery } from '@/shared/viewing/conditions';
import { usePreferences } from '@/stores/preferences';
import BesideKey from '../components/BesideKey.vue';
import CoupletShelf from '../components/CoupletShelf.vue';
import KeepKey from '../components/KeepKey.vue';
import KeptNote from '../components/KeptNote.vue';
import KeyBar from '../components/KeyBar.vue';
import KeyComparison from '../components/KeyComparison.vue';
import KeyConditions from '../components/KeyConditions.vue';
import KeyFlow from '../components/KeyFlow.vue';
import KeyProgress from '../components/KeyProgress.vue';
import KeyProof from '../components/KeyProof.vue';
import LeadEditor from '../components/LeadEditor.vue';
import NamedKeys from '../components/NamedKeys.vue';
import PrintedKey from '../components/PrintedKey.vue';
import { useKey } from '../composables/useKey';
import { useNamedKeys } from '../composables/useNamedKeys';
import { onlyIn } from '../logic/difference';
import { madeFor } from '../logic/madeFor';
import { placed, withQuestion } from '../logic/questions';
import { addressOf, seenBy, wishOf, type Wish } from '../logic/wish';

const model = useStudy();
const route = useRoute();
const router = useRouter();
const preferences = usePreferences();
const { t } = useI18n();
const keys = useNamedKeys();

const idIn = (value: unknown) => Number(value) || undefined;
/** Ids of keys that the study keeps: the one that is shown, the one beside it, and the one that is to be replaced. */
const keptId = computed(() => idIn(route.query.kept));
const besideId = computed(() => idIn(route.query.beside));
const replaces = computed(() => named.value.find((k) => k.id === idIn(route.query.replaces)));
/** The first couplet until another one is chosen. */
const selected = computed(() => idIn(route.query.couplet) ?? 1);

const named = computed(() => keys.all.data.value ?? []);
const kept = keys.whole(keptId);
const beside = keys.whole(besideId);
const wanted = computed<Wish>((before) => {
  const now = wishOf(route.query);
  return before && JSON.stringify(before) === JSON.stringify(now) ? before : now;
});
const key = useKey(
  model.slug,
  computed(() => (keptId.value ? undefined : wanted.value)),
  computed(() => model.study.value?.revision),
);
const view = computed(() => (keptId.value ? kept.data.value?.key : key.view.value));
const compared = computed(() => (keptId.value ? [] : key.compared.value));
/** What the key that is shown is made for. */
const wish = computed(() => {
  if (!keptId.value) return wanted.value;
  // Of a key that is not there, or not any more, something else can be asked.
  return kept.data.value?.line.request ?? (kept.error.value ? wanted.value : undefined);
});
const files = computed(() => {
  if (!view.value) return '';
  const of = keptId.value ? `named-keys/${keptId.value}` : `keys/${key.shown.value}`;
  return `/api/v1/studies/${model.slug}/${of}/file`;
});
const outdated = computed(
  () => keptId.value !== undefined && view.value?.figures.proven && kept.data.value?.line.standing.proven === false,
);
const editable = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const couplet = computed(() => view.value?.couplets.find((c) => c.number === selected.value));
/** Whether the key itself leads to something dangerous; of what it leaves out it says so at its head. */
const dangers = computed(() => {
  const there = new Set(view.value?.couplets[0]?.rows);
  return model.study.value?.rows.some((r) => there.has(r.id) && isDangerous(r.hazard)) ?? false;
});
const other = computed(() => (besideId.value ? beside.data.value : undefined));
const onlyHere = computed(() => view.value && other.value && onlyIn(view.value, other.value.key));

/** Changes the address; a key that was kept is left as it is, and a new one made. */
function ask(changes: LocationQueryRaw) {
  const from = keptId.value && wish.value ? addressOf(wish.value) : route.query;
  void router.replace({ query: { ...from, kept: undefined, couplet: undefined, ...changes } });
}

function look(changes: LocationQueryRaw) {
  void router.replace({ query: { ...route.query, ...changes } });
}

function open(id?: number) {
  void router.push({ query: id ? { kept: String(id), beside: route.query.beside } : {} });
}

/** The kept key beside the one that would be made today, before that takes its place. */
function update() {
  const id = String(keptId.value ?? '');
  if (wish.value) void router.push({ query: { ...addressOf(wish.value), replaces: id, beside: id } });
}

function askWith(change: Partial<Wish>) {
  if (wish.value) ask(addressOf({ ...wish.value, ...change }));
}

/** Asks another character at the couplet that is shown. */
function setQuestion(character: string) {
  if (!wish.value || !view.value || !couplet.value) return;
  const set = withQuestion(view.value, wish.value.questions, couplet.value, character);
  ask({ ...addressOf({ ...wish.value, questions: set }), couplet: String(selected.value) });
}

/** Questions that are set, and where they are asked as soon as there is a key that knows of them. */
const questions = computed(() => {
  const set = wish.value?.questions ?? [];
  const known = keptId.value !== undefined || key.fits.value;
  return view.value && known ? placed(view.value, set) : set.map((question) => ({ question, couplet: undefined }));
});
const forbidding = (forbidden: string[]) => ({ forbidden: forbidden.join(',') || undefined });
const labelOf = (id: string) => model.study.value?.characters.find((c) => c.id === id)?.label ?? id;
</script>

<template>
  <div class="studio">
    <h1 class="sr-only">{{ $t('stage.key') }}</h1>
    <KeyBar
      v-if="wish"
      class="no-print"
      :wish="wish"
      :label-of="labelOf"
      :named="named"
      :kept="keptId"
      :files="files"
      :questions="questions"
      :placed="keptId !== undefined || key.fits.value"
      @objective="ask({ objective: $event })"
      @allow="(c) => ask(forbidding(wish?.forbidden.filter((f) => f !== c) ?? []))"
      @free="(i) => askWith({ questions: wish?.questions.filter((_, at) => at !== i) })"
      @open="open"
    >
      <KeepKey
        v-if="editable && !keptId"
        :job="key.fits.value && !key.working.value ? key.shown.value : ''"
        :suggested="madeFor(wish, t)"
        :replaces="replaces"
        @kept="open"
      />
    </KeyBar>
    <KeyConditions
      v-if="model.study.value && wish"
      class="no-print"
      :model-value="seenBy(wish)"
      :wish="wish"
      :study="model.study.value"
      @update:model-value="ask(toQuery($event))"
      @beginners="ask({ objective: 'BEGINNER' })"
      @wish="askWith"
    />
    <ProblemNote :problem="keptId ? kept.error.value : key.problem.value" />
    <KeptNote
      v-if="keptId && kept.data.value"
      class="no-print"
      :kept="kept.data.value"
      :editable="editable"
      @update="update"
    />
    <p v-else-if="replaces" class="replacing no-print">{{ $t('namedKeys.replacing', { name: replaces.name }) }}</p>
    <KeyProgress
      v-if="!keptId"
      class="no-print"
      :working="key.working.value"
      :progress="key.progress.value"
      :stopped="key.stopped.value"
      :unfinished="key.unfinished.value"
      @stop="key.stop"
      @make="key.make"
    />
    <KeyProof v-if="view" :view="view" :dangers="dangers" :outdated="outdated ?? false" />
    <KeyComparison
      v-if="view && wish && compared.length"
      class="no-print"
      :keys="compared"
      :objective="wish.objective"
      @choose="ask({ objective: $event })"
    />
    <NamedKeys
      v-if="named.length"
      class="no-print"
      :named="named"
      :kept="keptId"
      :beside="besideId"
      :editable="editable"
      @open="open"
      @beside="look({ beside: $event ? String($event) : undefined })"
    />
    <div v-if="view" class="desk">
      <BesideKey v-if="other" class="pane no-print" :other="other" :shown="view" @close="look({ beside: undefined })" />
      <KeyFlow
        v-else
        class="pane no-print"
        :view="view"
        :selected="selected"
        @select="look({ couplet: String($event) })"
      />
      <div class="pane print" tabindex="0" role="region" :aria-label="$t('key.printed')">
        <PrintedKey
          :view="view"
          :plain="preferences.plain"
          :selected="selected"
          :marked="onlyHere"
          @select="look({ couplet: String($event) })"
        />
      </div>
      <aside class="pane no-print" :aria-label="$t('shelf.title')">
        <CoupletShelf
          v-if="couplet && model.study.value"
          :view="view"
          :couplet="couplet"
          :study="model.study.value"
          @forbid="ask(forbidding([...(wish?.forbidden ?? []), $event]))"
          @ask="setQuestion"
        >
          <LeadEditor v-if="editable && !keptId" :couplet="couplet" />
        </CoupletShelf>
        <p v-else class="quiet">{{ $t('key.pick') }}</p>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.studio {
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow-y: auto;
}

.replacing {
  margin: 0.35rem 1rem;
}

.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 17rem;
  /* What is opened above pushes it down; it never shrinks to a slit. */
  min-height: 22rem;
  flex: 1 0 0;
}

.pane {
  overflow: auto;
  padding: 0.75rem 1rem;
  min-height: 0;
}

.pane + .pane {
  border-left: 1px solid var(--rule);
}

@media print {
  .studio,
  .desk {
    display: block;
    height: auto;
  }

  .pane {
    overflow: visible;
  }
}

@media (max-width: 1000px) {
  .desk {
    display: block;
  }
}
</style>
