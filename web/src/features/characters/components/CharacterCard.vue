<script setup lang="ts">
import { mdiPencilOutline } from '@mdi/js';
import { computed } from 'vue';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import StatePicture from '@/shared/picture/StatePicture.vue';
import type { Character } from '../logic/characters';
import { useMonths } from '@/shared/calendar/months';

/** A character as readers meet it: question, how to look, states. */
const props = defineProps<{
  character: Character;
  plain: boolean;
  selected: boolean;
  editable: boolean;
  /** Whether it is one of several that are to be edited; undefined while none are chosen. */
  chosen: boolean | undefined;
  labelOf: (id: string) => string;
  nameOf: (row: string) => string;
  /** Labels of states of another character. */
  statesOf: (character: string, states: string[]) => string[];
}>();
const emit = defineEmits<{ select: []; choose: [] }>();
/** Taxa in which it is misread more or less often than elsewhere. */
const distrusted = computed(() => props.character.trust.groups.map((g) => props.nameOf(g.row)).join('; '));
const monthsOf = useMonths();
</script>

<template>
  <article :id="character.id" :class="{ selected }">
    <div>
      <v-checkbox
        v-if="chosen !== undefined"
        :model-value="chosen"
        :label="$t('several.choose', { name: character.label })"
        density="compact"
        hide-details
        @update:model-value="emit('choose')"
      />
      <h4>{{ character.label }}</h4>
      <p><GlossaryText :text="plain && character.plainQuestion ? character.plainQuestion : character.question" /></p>
      <p v-if="character.note" class="quiet"><GlossaryText :text="character.note" /></p>
      <v-btn
        v-if="editable"
        size="small"
        :prepend-icon="mdiPencilOutline"
        :aria-label="`${$t('characters.edit')} ${character.label}`"
        @click="emit('select')"
        >{{ $t('characters.edit') }}</v-btn
      >
    </div>
    <div>
      <p class="facts figures">
        {{ $t(`type.${character.type}`) }} {{ character.unit }} · {{ character.method || $t('characters.eye') }} ·
        {{ $t('characters.effort', { n: character.effort }) }} ·
        {{ $t('characters.misread', { n: Math.round(character.misreading * 100) }) }}
        <template v-if="distrusted">({{ $t('trust.inGroups', { names: distrusted }) }})</template>
        <template v-if="character.months.length">
          ·
          {{ monthsOf(character.months) }}</template
        >
      </p>
      <p v-if="character.hazardousToObserve" class="warn">{{ $t('characters.hazardous') }}</p>
      <p v-if="character.use.role !== 'DECIDES'" class="warn">{{ $t(`use.why.${character.use.role}`) }}</p>
      <p v-if="(character.use.seenOn ?? 1) < 1" class="quiet">
        {{ $t('use.seen', { n: Math.round((character.use.seenOn ?? 1) * 100) }) }}
      </p>
      <p v-if="character.looking.subject === 'INDIVIDUAL'" class="quiet">{{ $t('use.individual') }}</p>
      <p v-if="character.tentative" class="warn">{{ $t('characters.tentative') }}</p>
      <p v-for="condition in character.appliesWhen" :key="condition.character" class="quiet">
        {{
          $t('characters.applies', {
            character: labelOf(condition.character),
            states: statesOf(condition.character, condition.states).join($t('ask.or')),
          })
        }}
      </p>
      <ol v-if="character.states.length">
        <li v-for="state in character.states" :key="state.id">
          <StatePicture :id="state.picture" decorative />
          <span v-if="state.swatch" class="swatch" :style="{ background: state.swatch }" aria-hidden="true" />
          <span>
            <strong>{{ plain && state.plain ? state.plain : state.label }}</strong>
            <span v-if="state.definition" class="quiet"> — {{ state.definition }}</span>
          </span>
        </li>
      </ol>
    </div>
  </article>
</template>

<style scoped>
article {
  display: grid;
  grid-template-columns: 1fr 1.3fr;
  gap: 2rem;
  padding: 0.8rem 0.4rem;
  border-bottom: 1px solid var(--rule);
}

.selected {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 10%, transparent);
  box-shadow: inset 4px 0 0 rgb(var(--v-theme-primary));
}

h4 {
  font-family: var(--serif);
  font-size: 1.05rem;
}

.facts {
  font-size: 0.9rem;
}

.warn {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

ol {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.5rem 1.2rem;
  padding: 0.3rem 0 0;
  list-style: none;
}

li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  font-size: 0.92rem;
}

li img {
  flex: none;
}

.swatch {
  flex: none;
  width: 1.4rem;
  height: 1.4rem;
  border: 1px solid var(--rule);
}

@media (max-width: 800px) {
  article {
    grid-template-columns: 1fr;
  }
}
</style>
