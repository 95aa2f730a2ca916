<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Schemas } from '@/api/client';
import { useStudy } from '@/features/study';
import { usePreferences } from '@/stores/preferences';

const model = useStudy();
const preferences = usePreferences();
const wanted = ref('');
const groups = computed(() => {
  const byOrgan = new Map<string, Schemas['StudyCharacter'][]>();
  const words = wanted.value.toLowerCase();
  for (const character of model.study.value?.characters ?? []) {
    if (!`${character.label} ${character.organ} ${character.question}`.toLowerCase().includes(words)) continue;
    byOrgan.set(character.organ, [...(byOrgan.get(character.organ) ?? []), character]);
  }
  return [...byOrgan];
});

function labelOf(id: string): string {
  return model.study.value?.characters.find((c) => c.id === id)?.label ?? id;
}
</script>

<template>
  <div class="page">
    <header>
      <h2>{{ $t('characters.title') }}</h2>
      <v-text-field v-model="wanted" :label="$t('characters.find')" density="compact" hide-details clearable />
      <v-switch v-model="preferences.plain" :label="$t('plain')" density="compact" hide-details color="primary" />
    </header>
    <section v-for="[organ, characters] in groups" :key="organ" :aria-label="organ">
      <h3 class="organ">{{ organ || $t('characters.noOrgan') }}</h3>
      <article v-for="character in characters" :id="character.id" :key="character.id">
        <div>
          <h4>{{ character.label }}</h4>
          <p>{{ preferences.plain && character.plainQuestion ? character.plainQuestion : character.question }}</p>
          <p v-if="character.note" class="quiet">{{ character.note }}</p>
        </div>
        <div>
          <p class="facts figures">
            {{ $t(`type.${character.type}`) }} {{ character.unit }} · {{ character.method || $t('characters.eye') }} ·
            {{ $t('characters.effort', { n: character.effort }) }} ·
            {{ $t('characters.misread', { n: Math.round(character.misreading * 100) }) }}
            <template v-if="character.months.length">
              ·
              {{
                $t('characters.season', {
                  from: $t(`month.${character.months[0]}`),
                  to: $t(`month.${character.months[character.months.length - 1]}`),
                })
              }}</template
            >
          </p>
          <p v-if="character.hazardousToObserve" class="warn">{{ $t('characters.hazardous') }}</p>
          <p v-if="character.tentative" class="warn">{{ $t('characters.tentative') }}</p>
          <p v-for="condition in character.appliesWhen" :key="condition.character" class="quiet">
            {{
              $t('characters.applies', { character: labelOf(condition.character), states: condition.states.join(', ') })
            }}
          </p>
          <ol v-if="character.states.length">
            <li v-for="state in character.states" :key="state.id">
              <strong>{{ preferences.plain && state.plain ? state.plain : state.label }}</strong>
              <span v-if="state.definition" class="quiet"> — {{ state.definition }}</span>
            </li>
          </ol>
        </div>
      </article>
    </section>
    <p v-if="!groups.length" class="quiet">{{ $t('characters.none') }}</p>
  </div>
</template>

<style scoped>
header {
  display: grid;
  grid-template-columns: 1fr 18rem auto;
  gap: 1.5rem;
  align-items: center;
}

.organ {
  margin-top: 2rem;
  padding-bottom: 0.25rem;
  border-bottom: 2px solid rgb(var(--v-theme-primary));
}

.organ::first-letter {
  text-transform: uppercase;
}

article {
  display: grid;
  grid-template-columns: 1fr 1.3fr;
  gap: 2rem;
  padding: 0.8rem 0;
  border-bottom: 1px solid var(--rule);
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
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.5rem;
  padding-left: 1.1rem;
}

@media (max-width: 800px) {
  article,
  header {
    grid-template-columns: 1fr;
  }
}
</style>
