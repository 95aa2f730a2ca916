<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
import type { Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import StatePicture from '@/shared/picture/StatePicture.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import type { Draft } from '../composables/useDrafts';
import { toggled } from '../logic/view';

export interface QueueItem {
  id: string;
  row: Schemas['StudyRow'];
  character: Schemas['StudyCharacter'];
  /** Whether its taxon is named in the list. */
  named: boolean;
  /** What else tells it from its neighbours, or empty. */
  title: string;
  cell: Cell | undefined;
  /** A text that is on its way to the cell, or was refused and waits there. */
  draft?: Draft | undefined;
}

/**
 * Scoring one thing after the other: one character through all rows, or one row through all characters. The states stand
 * large beside the list, one key each.
 */
const props = defineProps<{
  items: QueueItem[];
  heading: string;
  byRow: boolean;
  editable: boolean;
  problem: string;
}>();
const active = defineModel<number>('active', { required: true });
const emit = defineEmits<{ score: [item: QueueItem, text: string]; doubt: [item: QueueItem]; dismiss: [] }>();
const list = useTemplateRef<HTMLElement>('list');
const input = useTemplateRef<HTMLInputElement>('input');
const typing = ref<string | null>(null);
const item = computed(() => props.items[active.value]);
const own = computed(() =>
  item.value?.draft ? item.value.draft.text : item.value?.cell && !item.value.cell.from ? item.value.cell.text : '',
);
/** States that it shows; those it is only taken for are not scored as its own. */
const shown = computed(() => new Set((item.value?.cell?.parts ?? []).filter((p) => !p.mistaken).map((p) => p.label)));

function go(to: number) {
  active.value = Math.max(0, Math.min(props.items.length - 1, to));
}

function give(text: string, next: boolean) {
  if (!item.value || !props.editable) return;
  emit('score', item.value, text);
  if (next) go(active.value + 1);
}

async function type(text: string) {
  if (!props.editable) return;
  emit('dismiss');
  typing.value = text;
  await nextTick();
  input.value?.focus();
}

function commit() {
  if (typing.value !== null) give(typing.value.trim(), true);
  typing.value = null;
  list.value?.focus();
}

function cancel() {
  typing.value = null;
  list.value?.focus();
}

/** A digit chooses its state and goes on; with Shift it is one of several, and the cell stays. */
function state(event: KeyboardEvent): string | undefined {
  const digit = /^(?:Digit|Numpad)([1-9])$/.exec(event.code)?.[1] ?? /^[1-9]$/.exec(event.key)?.[0];
  return digit ? item.value?.character.states[Number(digit) - 1]?.label : undefined;
}

function onKey(event: KeyboardEvent) {
  if (typing.value !== null || event.ctrlKey || event.metaKey || event.altKey) return;
  const label = state(event);
  const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10, Home: -1e6, End: 1e6 };
  if (event.key in steps) go(active.value + (steps[event.key] ?? 0));
  else if (label) give(event.shiftKey ? toggled(own.value, label) : label, !event.shiftKey);
  else if (event.key === 'Enter' || event.key === 'F2') void type(own.value);
  else if (event.key === 'Delete' || event.key === 'Backspace') give('', false);
  else if (event.key === '-') give('n/a', true);
  else if (event.key === 'u') give('?', true);
  else if (event.key === 'd' && item.value && own.value) emit('doubt', item.value);
  else if (/^[0-9(<>]$/.test(event.key) && !item.value?.character.states.length) void type(event.key);
  else return;
  event.preventDefault();
}

async function reveal() {
  await nextTick();
  list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView?.({ block: 'nearest' });
}

watch(active, reveal);
onMounted(() => {
  list.value?.focus();
  void reveal();
});
</script>

<template>
  <div class="queue">
    <div class="side">
      <h2>{{ heading }}</h2>
      <div
        ref="list"
        class="list"
        role="listbox"
        tabindex="0"
        :aria-label="heading"
        :aria-activedescendant="item ? `item-${item.id}` : undefined"
        @keydown="onKey"
      >
        <div
          v-for="(one, i) in items"
          :id="`item-${one.id}`"
          :key="one.id"
          role="option"
          class="item"
          :aria-selected="i === active"
          @click="go(i)"
        >
          <span class="title">
            <TaxonName v-if="one.named" :label="one.row.label" :stage="one.row.stage" />{{ ' ' }}
            <span v-if="one.title" :class="{ quiet: one.named }">{{ one.named ? `· ${one.title}` : one.title }}</span>
            <HazardMark v-if="!byRow" :hazard="one.row.hazard" />
          </span>
          <span
            class="value figures"
            :class="{
              inherited: one.cell?.from && !one.draft,
              doubt: one.cell?.doubtful,
              refused: one.draft?.reason,
              sending: one.draft && !one.draft.reason && !one.draft.stored,
            }"
            >{{ one.draft ? `${one.draft.reason ? '! ' : ''}${one.draft.text || '·'}` : one.cell?.text || '·' }}</span
          >
        </div>
      </div>
    </div>
    <section v-if="item" class="card" aria-live="polite">
      <p class="quiet">
        <template v-if="byRow">{{ item.character.organ }}</template><TaxonName
          v-else
          :label="item.row.label"
          :stage="item.row.stage"
        />
      </p>
      <h2><GlossaryText :text="item.character.question || item.character.label" /></h2>
      <p v-if="item.character.note"><GlossaryText :text="item.character.note" /></p>
      <p v-if="item.character.looking.pitfalls" class="quiet">{{ item.character.looking.pitfalls }}</p>
      <ol v-if="item.character.states.length" class="states">
        <li v-for="(one, i) in item.character.states" :key="one.id" :class="{ on: shown.has(one.label) }">
          <button
            type="button"
            :disabled="!editable"
            :aria-pressed="shown.has(one.label)"
            @click="give($event.shiftKey ? toggled(own, one.label) : one.label, !$event.shiftKey)"
          >
            <kbd v-if="i < 9">{{ i + 1 }}</kbd>
            <span v-if="one.swatch" class="swatch" :style="{ background: one.swatch }" aria-hidden="true" />
            <StatePicture :id="one.picture" large decorative />
            <span class="label">{{ one.label }}</span>
            <span v-if="one.plain" class="plain">{{ one.plain }}</span>
            <span v-if="one.definition" class="quiet">{{ one.definition }}</span>
          </button>
        </li>
      </ol>
      <p class="now figures">{{ item.cell ? item.cell.text || $t('score.emptyCell') : $t('loading') }}</p>
      <input
        v-if="typing !== null"
        ref="input"
        v-model="typing"
        :aria-label="$t('score.edit')"
        spellcheck="false"
        autocomplete="off"
        @keydown.enter.prevent="commit"
        @keydown.escape.prevent="cancel"
      />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <p v-if="editable" class="quiet">
        {{ $t(item.character.states.length ? 'score.queueKeys' : 'score.queueNumbers') }}
      </p>
    </section>
  </div>
</template>

<style scoped>
.queue {
  display: grid;
  grid-template-columns: minmax(16rem, 24rem) minmax(0, 1fr);
  min-height: 0;
  height: 100%;
}

.side {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  border-right: 1px solid var(--rule);
}

.list {
  overflow: auto;
}

.list:focus-visible {
  outline-offset: -3px;
}

.side h2 {
  padding: 0.8rem 1rem 0.3rem;
}

.item {
  padding: 0.32rem 1rem;
}

.item {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}

.item[aria-selected='true'] {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 12%, transparent);
  box-shadow: inset 4px 0 rgb(var(--v-theme-primary));
}

.title {
  font-family: var(--serif);
}

.value {
  text-align: right;
  font-weight: 600;
}

.value.refused {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

.value.sending {
  font-style: italic;
}

.value.inherited {
  font-weight: 400;
  color: var(--faint);
}

.value.doubt {
  text-decoration: underline dotted rgb(var(--v-theme-error)) 2px;
}

.card {
  overflow: auto;
  padding: 1.2rem 1.6rem;
}

.states {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  gap: 0.8rem;
  list-style: none;
  padding: 0;
  margin: 1rem 0;
}

.states button {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.3rem;
  width: 100%;
  height: 100%;
  min-height: 7rem;
  padding: 0.8rem 0.9rem;
  text-align: left;
  background: rgb(var(--v-theme-surface));
  border: 1px solid var(--rule);
}

.on button {
  border: 3px solid rgb(var(--v-theme-primary));
}

kbd {
  font: 600 0.85rem var(--sans);
  border: 1px solid var(--rule);
  border-radius: 3px;
  padding: 0 0.4rem;
}

.swatch {
  width: 100%;
  height: 2.2rem;
  border: 1px solid var(--rule);
}

.label {
  font-family: var(--serif);
  font-size: 1.15rem;
  font-weight: 600;
}

.now {
  font-family: var(--serif);
  font-size: 1.3rem;
}

input {
  width: 100%;
  max-width: 26rem;
  padding: 0.5rem;
  border: 2px solid rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-surface));
  color: inherit;
}

.problem {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

@media (max-width: 800px) {
  .queue {
    grid-template-columns: 1fr;
    grid-template-rows: 40vh auto;
  }
}
</style>
