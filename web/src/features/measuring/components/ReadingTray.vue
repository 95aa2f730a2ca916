<script setup lang="ts">
import { mdiCheck, mdiDelete, mdiEyeOff, mdiEye, mdiPencil } from '@mdi/js';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { Problem, type Schemas } from '@/api/client';
import { RulesDialog } from '@/features/body-measures';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useUnsaved } from '@/shared/ui/useUnsaved';
import { useEntries, type Entry } from '../composables/useEntries';
import { useStream } from '../composables/useInstruments';
import { draftOf, type Draft } from '../composables/useMeasured';
import { useTypingCaliper } from '../composables/useTypingCaliper';
import { nextItem, spread } from '../logic/marks';
import WaitingEntry from './WaitingEntry.vue';

/** Readings of one character of the specimen at hand: typed, pasted, or sent by a caliper that acts as a keyboard. */
const props = defineProps<{
  character: Schemas['StudyCharacter'];
  specimen: Schemas['Specimen'];
  readings: Schemas['RevisedReading'][];
  items: Schemas['MeasuredItem'][];
  editable: boolean;
  chosen: string;
  /** Address at which a caliper is heard; without one there is none. */
  caliperAddress?: string;
  add: (drafts: Draft[]) => Promise<string>;
  correct: (id: string, draft: Draft, baseRevision: number) => Promise<void>;
  remove: (id: string, baseRevision: number) => Promise<void>;
  slug: string;
  /** Says what an entry is of: "V 3, leaf width". */
  nameOf: (specimen: string, character: string) => string;
}>();
const item = defineModel<string>('item', { required: true });
const emit = defineEmits<{ choose: [id: string] }>();
const { t } = useI18n();
const { problem, run } = useAction();
const typed = ref('');
/** A reading that is being corrected, and what is typed for it. */
const correcting = ref<{ id: string; text: string } | null>(null);

watch(
  () => [props.specimen.id, props.character.id],
  () => {
    correcting.value = null;
    problem.value = null;
  },
);

const lines = computed(() =>
  props.readings
    .filter((k) => k.reading.character === props.character.id)
    .map((kept) => ({ kept, seen: props.items.find((i) => i.reading === kept.reading.id) }))
    .reverse(),
);

/** Ratios that were worked out: they are corrected in their parts. */
const derived = computed(() => props.items.filter((i) => !i.reading && i.barred !== 'SET_ASIDE'));

const { entries, take, retry, discard } = useEntries(props.slug, (drafts) => props.add(drafts));
useUnsaved(() => entries.value.length > 0 || typed.value.trim() !== '');

function begin(texts: string[]) {
  take(texts, { specimen: props.specimen.id, character: props.character.id, item: item.value });
  for (let k = 0; k < texts.length; k++) item.value = nextItem(item.value);
}

/** Of many pasted lines, which one is not a reading. */
function told({ refused: failure, texts }: Entry): Error | null {
  const rejections = failure instanceof Problem ? failure.details.rejections : undefined;
  const first = Array.isArray(rejections)
    ? (rejections[0] as { index: number; reason: string } | undefined)
    : undefined;
  return first && texts.length > 1
    ? new Error(
        t('measure.tray.line', { n: first.index + 1, reason: first.reason, more: (rejections as []).length - 1 }),
      )
    : (failure as Error | null);
}

/** What an entry is of, if not of what is at hand. */
const ofOther = (entry: Entry) =>
  entry.specimen === props.specimen.id && entry.character === props.character.id
    ? ''
    : props.nameOf(entry.specimen, entry.character);

const calibrating = ref(false);

/** What a caliper sends is taken as if it were typed, one after the other. */
const caliper = useStream('reading', (text) => {
  begin([text]);
});
watch(
  () => [props.specimen.id, props.character.id],
  () => caliper.close(),
);

const field = useTemplateRef<{ $el: HTMLElement }>('field');
const { inUse, endsReading } = useTypingCaliper(() => field.value?.$el.querySelector('input'));

/** The field is free for the next reading at once: this one waits below. */
function enter() {
  if (!typed.value.trim()) return;
  begin([typed.value.trim()]);
  typed.value = '';
}

function keydown(event: KeyboardEvent) {
  if (!endsReading(event, typed.value)) return;
  event.preventDefault();
  enter();
}

/** A column of a spreadsheet is so many readings. */
function paste(event: ClipboardEvent) {
  const texts = (event.clipboardData?.getData('text') ?? '')
    .split(/[\r\n\t]+/)
    .map((s) => s.trim())
    .filter(Boolean);
  if (texts.length < 2) return;
  event.preventDefault();
  begin(texts);
}

const put = (kept: Schemas['RevisedReading'], change: Partial<Draft>) =>
  run(async () => {
    await props.correct(kept.reading.id, draftOf(kept.reading, change), kept.revision);
    correcting.value = null;
  });

const gone = (kept: Schemas['RevisedReading']) => run(() => props.remove(kept.reading.id, kept.revision));

/** The repaired value stands instead; what was typed before stays as a note. */
const repair = (kept: Schemas['RevisedReading'], repaired: string) =>
  put(kept, {
    typed: `${repaired} ${props.character.unit}`.trim(),
    note: [kept.reading.note, t('measure.tray.was', { typed: kept.reading.typed })].filter(Boolean).join('; '),
  });
</script>

<template>
  <section :aria-label="$t('measure.tray.title')" class="tray">
    <form v-if="editable" class="entry" @submit.prevent="enter">
      <v-text-field
        ref="field"
        v-model="typed"
        :label="character.unit ? $t('measure.tray.typedIn', { unit: character.unit }) : $t('measure.tray.typed')"
        :placeholder="$t('measure.tray.like')"
        density="compact"
        hide-details
        autocomplete="off"
        @paste="paste"
        @keydown="keydown"
      />
      <v-text-field
        v-model="item"
        :label="$t('measure.tray.item')"
        :placeholder="$t('measure.tray.itemLike')"
        density="compact"
        hide-details
        autocomplete="off"
      />
      <v-btn type="submit" :disabled="!typed.trim()">{{ $t('measure.tray.take') }}</v-btn>
    </form>
    <div v-if="editable && character.type === 'LENGTH'" class="caliper">
      <v-btn size="small" variant="text" @click="calibrating = true">{{ $t('rough.title') }}</v-btn>
      <RulesDialog v-if="calibrating" v-model="calibrating" />
    </div>
    <div v-if="editable && props.caliperAddress" class="caliper">
      <v-btn size="small" @click="caliper.open.value ? caliper.close() : caliper.begin(props.caliperAddress)">{{
        $t(caliper.open.value ? 'measure.caliper.close' : 'measure.caliper.open')
      }}</v-btn>
      <span v-if="caliper.open.value" class="quiet" role="status">{{
        $t(caliper.lost.value ? 'measure.caliper.lost' : 'measure.caliper.listening')
      }}</span>
    </div>
    <v-checkbox
      v-if="editable && character.type !== 'STATES' && character.type !== 'ORDERED'"
      v-model="inUse"
      :label="$t('measure.caliper.types')"
      density="compact"
      hide-details
    />
    <ul v-if="entries.length" class="derived">
      <WaitingEntry
        v-for="entry in entries"
        :key="entry.id"
        :entry="entry"
        :problem="told(entry)"
        :of="ofOther(entry)"
        @retry="retry(entry, $event)"
        @discard="discard(entry)"
      />
    </ul>
    <ProblemNote :problem="problem" />
    <ul v-if="derived.length" class="derived">
      <li v-for="(of, i) in derived" :key="i">
        <strong class="figures">{{ of.typed }}</strong>
        <span v-if="spread(of.uncertainty)" class="figures quiet">&nbsp;± {{ spread(of.uncertainty) }}</span>
        <span class="quiet">&nbsp;{{ [of.item, $t('measure.tray.derived')].filter(Boolean).join(' · ') }}</span>
        <span v-if="of.cause" class="warn"
          >&nbsp;{{ $t(`measure.cause.${of.cause}`, { repaired: '', unit: '' }) }}</span
        >
      </li>
    </ul>
    <p v-else-if="!lines.length" class="quiet">{{ $t('measure.tray.none', { character: character.label }) }}</p>
    <ol>
      <li
        v-for="{ kept, seen } in lines"
        :key="kept.reading.id"
        :class="{ chosen: kept.reading.id === chosen, aside: kept.reading.standing === 'SET_ASIDE' }"
      >
        <div class="line">
          <button type="button" class="reading" @click="emit('choose', kept.reading.id)">
            <strong class="figures">{{ kept.reading.typed }}</strong>
            <span v-if="spread(seen?.uncertainty)" class="figures quiet">± {{ spread(seen?.uncertainty) }}</span>
            <span class="quiet">{{
              [
                kept.reading.item,
                kept.reading.mark ? $t(`measure.shape.${kept.reading.mark.shape}`) : kept.reading.instrument,
                kept.reading.by,
              ]
                .filter(Boolean)
                .join(' · ')
            }}</span>
          </button>
          <template v-if="editable">
            <v-btn
              v-if="!kept.reading.mark"
              :icon="mdiPencil"
              size="x-small"
              variant="text"
              :aria-label="$t('measure.tray.correct', { typed: kept.reading.typed })"
              @click="correcting = { id: kept.reading.id, text: kept.reading.typed }"
            />
            <v-btn
              :icon="kept.reading.standing === 'SET_ASIDE' ? mdiEye : mdiEyeOff"
              size="x-small"
              variant="text"
              :aria-label="
                $t(kept.reading.standing === 'SET_ASIDE' ? 'measure.tray.again' : 'measure.tray.aside', {
                  typed: kept.reading.typed,
                })
              "
              @click="put(kept, { standing: kept.reading.standing === 'SET_ASIDE' ? 'TAKEN' : 'SET_ASIDE' })"
            />
            <v-btn
              :icon="mdiDelete"
              size="x-small"
              variant="text"
              :aria-label="$t('measure.tray.remove', { typed: kept.reading.typed })"
              @click="gone(kept)"
            />
          </template>
        </div>
        <form
          v-if="correcting?.id === kept.reading.id"
          class="entry"
          @submit.prevent="put(kept, { typed: correcting?.text ?? '' })"
        >
          <v-text-field
            v-model="correcting.text"
            :label="$t('measure.tray.right')"
            density="compact"
            hide-details
            autofocus
            @keydown.esc="correcting = null"
          />
          <v-btn type="submit">{{ $t('save') }}</v-btn>
        </form>
        <div v-if="seen?.cause" class="slip" role="note">
          <span>{{ $t(`measure.cause.${seen.cause}`, { repaired: seen.repaired, unit: character.unit }) }}</span>
          <v-btn
            v-if="seen.repaired && editable && !kept.reading.mark"
            size="small"
            @click="repair(kept, seen.repaired)"
            >{{ $t('measure.tray.repair', { repaired: seen.repaired, unit: character.unit }) }}</v-btn
          >
          <v-btn v-if="editable" size="small" :prepend-icon="mdiCheck" @click="put(kept, { standing: 'KEPT' })">{{
            $t('measure.tray.keep')
          }}</v-btn>
        </div>
        <p v-else-if="seen?.barred && seen.barred !== 'SET_ASIDE'" class="quiet barred">
          {{ $t(`measure.barred.${seen.barred}`) }}
        </p>
        <p v-if="kept.reading.standing === 'KEPT'" class="quiet barred">{{ $t('measure.tray.kept') }}</p>
        <p v-if="kept.reading.note" class="quiet barred">{{ kept.reading.note }}</p>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 0.4rem;
  align-items: center;
  margin-bottom: 0.4rem;
}

.derived {
  list-style: none;
  padding: 0;
  margin: 0.3rem 0;
}

.warn {
  color: rgb(var(--v-theme-error));
}

ol {
  list-style: none;
  padding: 0;
  margin: 0;
  max-height: 15rem;
  overflow: auto;
}

li {
  border-top: 1px solid var(--rule);
  padding: 0.1rem 0.3rem;
}

li.chosen {
  box-shadow: inset 3px 0 rgb(var(--v-theme-primary));
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 8%, transparent);
}

.aside .reading strong {
  text-decoration: line-through;
}

.line {
  display: flex;
  align-items: center;
}

.reading {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.5rem;
  align-items: baseline;
  text-align: left;
  padding: 0.25rem 0;
}

.reading .quiet {
  font-size: 0.82rem;
}

.caliper {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-size: 0.82rem;
  margin-bottom: 0.3rem;
}

.slip {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
  padding: 0.3rem 0.4rem;
  margin-bottom: 0.3rem;
  font-size: 0.86rem;
  border-left: 3px solid rgb(var(--v-theme-error));
  background: color-mix(in srgb, rgb(var(--v-theme-error)) 9%, transparent);
}

.barred {
  margin: 0 0 0.3rem;
  font-size: 0.82rem;
}
</style>
