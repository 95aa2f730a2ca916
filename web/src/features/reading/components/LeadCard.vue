<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import { usePictures } from '@/shared/picture/pictures';
import StatePicture from '@/shared/picture/StatePicture.vue';

/** A lead to tap as a whole: its states in pictures, what decides, and what confirms. */
const props = defineProps<{
  letter: string;
  lead: Schemas['LeadView'];
  /** Of the character that decides. */
  states: Schemas['StudyState'][];
  plain: boolean;
}>();
const emit = defineEmits<{ take: [] }>();
const pictures = usePictures();

const said = (s: Schemas['StatementView']) => (props.plain ? s.plainText : s.text);
const deciding = computed(() => props.lead.statements.filter((s) => s.role === 'DECIDING'));
const others = computed(() => props.lead.statements.filter((s) => s.role !== 'DECIDING'));
const drawn = computed(() => {
  const ids = deciding.value.flatMap((s) => s.states ?? []);
  return props.states.filter((s) => ids.includes(s.id) && pictures(s.picture));
});
const text = computed(() => props.lead.statements.map(said).join('; '));
const called = (state: Schemas['StudyState']) => (props.plain && state.plain) || state.label;
</script>

<template>
  <section class="card" @click="emit('take')">
    <div v-if="drawn.length" class="pictures">
      <figure v-for="state in drawn" :key="state.id">
        <StatePicture :id="state.picture" decorative />
        <figcaption v-if="drawn.length > 1">{{ called(state) }}</figcaption>
      </figure>
    </div>
    <p v-for="(s, i) in deciding" :key="i" class="deciding"><GlossaryText :text="said(s)" /></p>
    <ul v-if="others.length">
      <li v-for="(s, i) in others" :key="i" :class="s.role.toLowerCase()"><GlossaryText :text="said(s)" /></li>
    </ul>
    <button
      type="button"
      class="take"
      :aria-label="$t('reading.takeThis', { letter, text })"
      @click.stop="emit('take')"
    >
      {{ $t('reading.take', { letter }) }}
    </button>
  </section>
</template>

<style scoped>
.card {
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
  padding: 0.8rem 0.9rem;
  border: 1px solid var(--rule);
  border-radius: 4px;
  cursor: pointer;
  font-family: var(--serif);
}

.card:hover,
.card:focus-within {
  border-color: rgb(var(--v-theme-primary));
}

.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

figure {
  margin: 0;
}

figcaption {
  font-family: var(--sans);
  font-size: 0.85rem;
}

.deciding {
  margin: 0;
  font-size: 1.12rem;
  font-weight: 600;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

.tendency {
  color: var(--faint);
}

.take {
  margin-top: auto;
  min-height: 2.75rem;
  padding: 0 0.9rem;
  align-self: flex-start;
  font-family: var(--sans);
  font-weight: 600;
  color: rgb(var(--v-theme-primary));
  border: 1px solid currentcolor;
  border-radius: 4px;
}

@media (max-width: 600px) {
  .card {
    gap: 0.25rem;
    padding: 0.55rem 0.7rem;
  }

  .pictures :deep(.picture) {
    width: 5.2rem;
    height: 3.9rem;
  }
}
</style>
