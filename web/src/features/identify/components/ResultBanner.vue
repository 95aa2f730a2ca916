<script setup lang="ts">
import { mdiAlert } from '@mdi/js';
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/HazardMark.vue';
import TaxonName from '@/shared/TaxonName.vue';

/** What can be said now; and, always beside it, every dangerous row that is not ruled out. */
const props = defineProps<{
  result: Schemas['IdentifyResponse'];
  answers: number;
  outside: Schemas['OutsideTaxon'][];
  labels: Map<string, Schemas['StudyCharacter']>;
}>();
const emit = defineEmits<{ ask: [character: string] }>();
const MOST_NAMED = 4;
const remaining = computed(() => props.result.standings.filter((s) => props.result.remaining.includes(s.name.row)));
const notRuledOut = computed(() => props.result.margins.filter((m) => !m.ruledOut));
const ruledOut = computed(() => props.result.margins.filter((m) => m.ruledOut));
const outsideDanger = computed(() =>
  props.outside.filter((o) => o.hazard === 'SERIOUS' || o.hazard === 'LIFE_THREATENING'),
);
const labelOf = (id: string) => props.labels.get(id)?.label ?? id;
</script>

<template>
  <div class="result">
    <section aria-live="polite" class="verdict">
      <h3>{{ $t(`conclusion.${answers ? result.conclusion : 'START'}`) }}</h3>
      <p v-if="answers && result.conclusion !== 'NONE_LEFT'">
        <template v-for="(s, i) in remaining.slice(0, MOST_NAMED)" :key="s.name.row"
          ><template v-if="i">, </template
          ><strong><TaxonName :label="s.name.label" :stage="s.name.stage" /></strong></template
        ><template v-if="remaining.length > MOST_NAMED"
          >{{ ' ' }}{{ $t('ask.more', { n: remaining.length - MOST_NAMED }) }}</template
        >
      </p>
      <p v-if="result.conclusion === 'OUTSIDE'">
        {{ $t('ask.outside') }}
        <template v-for="(o, i) in outside" :key="o.name"
          ><template v-if="i">; </template><TaxonName :label="o.name" /> <HazardMark :hazard="o.hazard"
        /></template>
      </p>
      <p class="quiet">{{ $t('ask.noPermission') }}</p>
    </section>
    <section v-if="notRuledOut.length || outsideDanger.length" class="danger" :aria-label="$t('margin.title')">
      <h3><v-icon :icon="mdiAlert" aria-hidden="true" /> {{ $t('margin.title') }}</h3>
      <ul>
        <li v-for="m in notRuledOut" :key="m.name.row">
          <strong><TaxonName :label="m.name.label" :stage="m.name.stage" /></strong>
          <HazardMark :hazard="m.name.hazard" />
          <span v-if="m.safeQuestions.length">
            {{ $t('margin.look') }}
            <template v-for="(q, i) in m.safeQuestions.slice(0, 3)" :key="q"
              ><template v-if="i">, </template
              ><button type="button" @click="emit('ask', labelOf(q))">{{ labelOf(q) }}</button></template
            >
          </span>
          <span v-else>{{ $t('margin.none') }}</span>
        </li>
        <li v-for="o in outsideDanger" :key="o.name">
          <strong><TaxonName :label="o.name" /></strong> <HazardMark :hazard="o.hazard" /> {{ $t('margin.outside') }}
          {{ o.why }}
        </li>
      </ul>
    </section>
    <p v-if="ruledOut.length" class="ruled">
      {{
        $t('margin.ruledOut', {
          names: ruledOut.map((m) => m.name.label + (m.name.stage ? ', ' + m.name.stage : '')).join('; '),
        })
      }}
    </p>
  </div>
</template>

<style scoped>
.result {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr);
  gap: 0.5rem 2rem;
}

.verdict {
  border-left: 4px solid rgb(var(--v-theme-primary));
  padding: 0.25rem 0.9rem;
}

.danger {
  border: 2px solid rgb(var(--v-theme-error));
  padding: 0.5rem 0.9rem;
}

.danger h3 {
  color: rgb(var(--v-theme-error));
}

ul {
  list-style: none;
  padding: 0;
}

li {
  margin: 0.3rem 0;
}

li > span {
  display: block;
  font-size: 0.93rem;
}

button {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  font-weight: 600;
  min-height: 1.5rem;
}

.ruled {
  grid-column: 1 / -1;
}

@media (max-width: 900px) {
  .result {
    grid-template-columns: minmax(0, 1fr);
  }

  .danger {
    max-height: 14rem;
    overflow: auto;
  }
}
</style>
