<script setup lang="ts">
import { mdiArrowRight, mdiMagnify } from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { addressOf } from '@/api/client';
import { AccountMenu } from '@/features/account';
import { provideGlossary } from '@/shared/glossary/glossary';
import { providePictures } from '@/shared/picture/pictures';
import { rowName } from '@/shared/taxon/rowNames';
import { useSubject } from '@/shared/ui/pageTitle';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import ChecksButton from '../components/ChecksButton.vue';
import CommandPalette from '../components/CommandPalette.vue';
import ExportDialog from '../components/ExportDialog.vue';
import KeysHelp from '../components/KeysHelp.vue';
import SharingDialog from '../components/SharingDialog.vue';
import StudyFrameMenu from '../components/StudyFrameMenu.vue';
import UndoButtons from '../components/UndoButtons.vue';
import { provideStudy } from '@/study-kernel';
import { useReversed } from '../composables/useUndo';
import { FILES, wished, type FileKind } from '../logic/files';
import { placeOf } from '../logic/nextStep';
import { stages } from '../logic/stages';

const props = defineProps<{ slug: string }>();
const model = provideStudy(props.slug);
providePictures(
  () => `/api/v1/studies/${encodeURIComponent(props.slug)}/pictures`,
  () => model.study.value?.pictures,
);
provideGlossary(() => model.study.value?.glossary);
useSubject(() => model.study.value?.title);
const { t } = useI18n();
const route = useRoute();
const router = useRouter();
const palette = ref(false);
const help = ref(false);
const sharing = ref(false);
const exporting = ref(false);
/** Whether the page would show what this account may not see yet. */
const hides = computed(() => model.study.value?.blind && here.value !== 'second' && !route.path.includes('/blind/'));
/** The stage; pages of a stage stand behind it. */
const here = computed(() => route.path.split('/')[3]);
const step = computed(() => model.nextStep.value);
const path = computed(() => (model.study.value ? stages(model.study.value, step.value) : []));
const stepPlace = computed(() => (step.value ? placeOf(step.value) : ''));
const stepStage = computed(() => stepPlace.value.split('?')[0]);
const reversed = useReversed(model);
/** What the latest step back did, or why there was none. */
const said = computed(() => model.message.value || reversed.value);
const canEdit = computed(() => model.study.value !== undefined && model.study.value.role !== 'VIEWER');

const commands = computed(() => [
  ...(step.value
    ? [{ label: t('palette.step'), run: () => router.push(`/studies/${props.slug}/${stepPlace.value}`) }]
    : []),
  ...path.value.map((stage) => ({
    label: t('palette.go', { stage: t(`stage.${stage.id}`) }),
    run: () => router.push(`/studies/${props.slug}/${stage.id}`),
  })),
  { label: t('measure.title'), run: () => router.push(`/studies/${props.slug}/gather/measure`) },
  { label: t('sheets.open'), run: () => router.push(`/studies/${props.slug}/gather/sheets`) },
  { label: t('measure.cells'), run: () => router.push(`/studies/${props.slug}/gather/cells`) },
  { label: t('dangers.title'), run: () => router.push(`/studies/${props.slug}/dangers`) },
  { label: t('palette.checks'), run: () => router.push(`/studies/${props.slug}/checks`) },
  { label: t('palette.export'), run: () => (exporting.value = true) },
  ...FILES.map((kind) => ({ label: t(`palette.${kind}`), run: () => save(kind) })),
  { label: t('palette.undo'), run: () => model.undo() },
  { label: t('palette.redo'), run: () => model.redo() },
  { label: t('palette.studies'), run: () => router.push('/studies') },
  ...(canEdit.value
    ? [
        { label: t('sharing.title'), run: () => (sharing.value = true) },
        { label: t('second.open'), run: () => router.push(`/studies/${props.slug}/second`) },
      ]
    : []),
  { label: t('palette.references'), run: () => router.push(`/studies/${props.slug}/references`) },
  { label: t('palette.importInto'), run: () => router.push(`/import?into=${props.slug}`) },
  { label: t('palette.import'), run: () => router.push('/import') },
]);

/** Taxa, characters, specimens and terms, each with the place where it is looked at. */
const things = computed(() => {
  const study = model.study.value;
  if (!study || !palette.value) return [];
  const to = (kind: string, label: string, place: string) => ({
    label: t(`palette.thing.${kind}`, { label }),
    run: () => router.push(`/studies/${props.slug}/${place}`),
  });
  const id = encodeURIComponent;
  return [
    ...study.rows.map((r) => to('taxon', rowName(r), `score?row=${id(r.id)}`)),
    ...study.characters.map((c) => to('character', c.label, `characters?character=${id(c.id)}`)),
    ...study.specimens.map((s) => to('specimen', s.code, `gather?specimen=${id(s.id)}`)),
    ...study.glossary.map((g) => to('term', g.term, 'references')),
  ];
});

function save(kind: FileKind) {
  window.location.assign(addressOf('/api/v1/studies/{slug}/export', wished(props.slug, kind, false)));
}

function isTyping(event: KeyboardEvent): boolean {
  return event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
}

useEventListener('keydown', (event) => {
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  if (command && key === 'k') {
    event.preventDefault();
    palette.value = true;
  } else if (command && key === 'z' && !isTyping(event) && canEdit.value) {
    event.preventDefault();
    void (event.shiftKey ? model.redo() : model.undo());
  } else if (command && key === 'y' && !isTyping(event) && canEdit.value) {
    event.preventDefault();
    void model.redo();
  } else if (event.key === '?' && !isTyping(event)) {
    help.value = true;
  }
});
</script>

<template>
  <div class="frame">
    <header class="no-print">
      <div class="top">
        <router-link to="/studies" class="home">{{ $t('product') }}</router-link>
        <span class="title">{{ model.study.value?.title }}</span>
        <v-spacer />
        <ChecksButton v-if="model.study.value?.blind === false" :slug="slug" :revision="model.study.value?.revision" />
        <UndoButtons v-if="canEdit" />
        <v-btn
          :icon="mdiMagnify"
          variant="text"
          size="small"
          :aria-label="$t('palette.open')"
          @click="palette = true"
        />
        <StudyFrameMenu
          :slug="slug"
          :editable="canEdit"
          @export="exporting = true"
          @share="sharing = true"
          @keys="help = true"
        />
        <AccountMenu><v-list-item :title="$t('keys.title')" @click="help = true" /></AccountMenu>
      </div>
      <nav :aria-label="$t('stage.path')">
        <ol>
          <li v-for="stage in path" :key="stage.id" :class="{ here: here === stage.id }">
            <router-link :to="`/studies/${slug}/${stage.id}`" :aria-current="here === stage.id ? 'step' : undefined">
              <span class="stage">{{ $t(`stage.${stage.id}`) }}</span>
              <span class="gauge figures">{{
                $t(stage.gauge.message, stage.gauge.numbers, stage.gauge.numbers.n ?? 0)
              }}</span>
            </router-link>
          </li>
        </ol>
      </nav>
    </header>
    <v-main class="work" :class="{ 'with-note': hides }">
      <div v-if="model.error.value" class="page"><ProblemNote :problem="model.error.value" /></div>
      <v-progress-linear v-else-if="!model.study.value" indeterminate :aria-label="$t('loading')" />
      <template v-else>
        <p v-if="hides" class="hides" role="status">
          {{ $t('second.blindLead') }}
          <router-link :to="`/studies/${slug}/second`">{{ $t('second.work') }}</router-link>
        </p>
        <h1 v-if="route.meta.heading && route.meta.title" class="sr-only">{{ $t(route.meta.title) }}</h1>
        <router-view />
      </template>
    </v-main>
    <footer v-if="step || said" class="no-print">
      <template v-if="step"
        ><span class="label">{{ $t('step.label') }}</span>
        <span>{{
          $t(
            `step.kind.${step.kind}`,
            { subject: step.subject, n: step.count, month: step.month ? $t(`month.${step.month}`) : '' },
            step.count,
          )
        }}</span>
        <v-btn
          v-if="route.fullPath !== `/studies/${slug}/${stepPlace}`"
          size="small"
          color="primary"
          :append-icon="mdiArrowRight"
          :to="`/studies/${slug}/${stepPlace}`"
        >
          {{ $t('step.go', { stage: $t(`stage.${stepStage}`) }) }}
        </v-btn>
      </template>
      <span v-if="said" class="message" role="status">{{ said }}</span>
    </footer>
    <CommandPalette v-model="palette" :commands="commands" :things="things" />
    <SharingDialog v-model="sharing" />
    <ExportDialog v-model="exporting" />
    <KeysHelp v-model="help" :screen="here" />
  </div>
</template>

<style scoped>
.work.with-note {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}

.hides {
  padding: 0.5rem 1rem;
  border-left: 4px solid rgb(var(--v-theme-primary));
}

.frame {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto 1fr auto;
  height: 100vh;
}

.top {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  padding: 0.35rem 1rem 0;
}

.home {
  font-family: var(--serif);
  font-weight: 700;
  font-size: 1.1rem;
  text-decoration: none;
}

.title {
  font-family: var(--serif);
  font-size: 1.1rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

nav ol {
  display: flex;
  list-style: none;
  padding: 0 1rem;
  margin: 0;
  border-bottom: 1px solid var(--rule);
  overflow-x: auto;
}

nav a {
  display: flex;
  flex-direction: column;
  padding: 0.4rem 1.6rem 0.45rem 0;
  text-decoration: none;
  color: inherit;
  white-space: nowrap;
}

nav li {
  border-bottom: 3px solid transparent;
  margin-right: 0.4rem;
}

nav li.here {
  border-bottom-color: rgb(var(--v-theme-primary));
}

.stage {
  font-weight: 600;
}

.here .stage {
  color: rgb(var(--v-theme-primary));
}

.gauge {
  font-size: 0.82rem;
  color: var(--faint);
}

.work {
  min-height: 0;
  overflow: auto;
}

footer {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  border-top: 1px solid var(--rule);
  padding: 0.4rem 1rem;
  min-height: 2.9rem;
  flex-wrap: wrap;
}

footer .label {
  font-weight: 700;
  color: rgb(var(--v-theme-primary));
}

.message {
  margin-left: auto;
  color: rgb(var(--v-theme-error));
}

/* On paper there is nothing to scroll. */
@media print {
  .frame {
    display: block;
    height: auto;
  }

  .work {
    overflow: visible;
  }
}

/* On short windows, at 200 % zoom, the work has the room; the next best step is in the palette. */
@media (max-height: 560px) {
  .gauge,
  footer {
    display: none;
  }

  nav a {
    padding-block: 0.15rem;
  }

  .top {
    padding-top: 0;
  }
}

@media (max-width: 700px) {
  .top {
    gap: 0.2rem;
  }

  .title {
    flex: 1 1 0;
    min-width: 0;
  }

  footer {
    flex-wrap: nowrap;
  }

  footer > span:not(.label) {
    flex: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  footer .label {
    display: none;
  }
}

@media (max-width: 700px) and (min-height: 561px) {
  .top {
    flex-wrap: wrap;
  }

  .title {
    flex: 1 0 70%;
  }
}
</style>
