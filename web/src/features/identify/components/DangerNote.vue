<script setup lang="ts">
import { mdiAlert } from '@mdi/js';
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import { isDangerous } from '@/shared/taxon/hazards';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { useMonths } from '@/shared/calendar/months';

/** Every dangerous row that is not ruled out, with the safe way to do so; it stands beside each result. */
const props = defineProps<{
  margins: Schemas['MarginView'][];
  outside: Schemas['OutsideTaxon'][];
  labels: Map<string, Schemas['StudyCharacter']>;
}>();
const emit = defineEmits<{ ask: [character: string] }>();
const notRuledOut = computed(() => props.margins.filter((m) => !m.ruledOut));
const ruledOut = computed(() => props.margins.filter((m) => m.ruledOut));
const outsideDanger = computed(() => props.outside.filter((o) => isDangerous(o.hazard)));
const nameOf = (m: Schemas['MarginView']) => m.name.label + (m.name.stage ? `, ${m.name.stage}` : '');
const monthsOf = useMonths();
/** What to look at next, in order; each once. */
const first = (m: Schemas['MarginView']) => [...new Set([...m.looks, ...m.safeQuestions])].slice(0, 3);
const labelOf = (id: string) => props.labels.get(id)?.label ?? id;
</script>

<template>
  <div>
    <section v-if="notRuledOut.length || outsideDanger.length" class="danger" :aria-label="$t('margin.title')">
      <h3><v-icon :icon="mdiAlert" aria-hidden="true" /> {{ $t('margin.title') }}</h3>
      <ul>
        <li v-for="m in notRuledOut" :key="m.name.row">
          <strong><TaxonName :label="m.name.label" :stage="m.name.stage" /></strong>
          <HazardMark :hazard="m.name.hazard" />
          <span v-if="m.features > 1 && m.safeQuestions.length" class="how">
            {{
              m.looks.length
                ? $t('margin.missing', { n: m.agreeing, all: m.agreeing + m.looks.length })
                : $t('margin.notEnoughNow')
            }}
            {{ $t('margin.look') }}
            <template v-for="(q, i) in first(m)" :key="q"
              ><template v-if="i">, </template
              ><button type="button" @click="emit('ask', labelOf(q))">{{ labelOf(q) }}</button></template
            >{{ $t('margin.otherwise', { name: nameOf(m) }) }}
          </span>
          <span v-else-if="m.features > 1" class="how">{{ $t('margin.none') }}</span>
          <span v-else class="how">{{ $t('margin.never', { name: nameOf(m) }) }}</span>
          <span v-if="m.later.length && !m.looks.length" class="how">{{
            $t('margin.later', {
              what: m.later.slice(0, 3).map(labelOf).join(', '),
              months: monthsOf(m.laterMonths),
            })
          }}</span>
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
          names: ruledOut.map(nameOf).join('; '),
        })
      }}
    </p>
  </div>
</template>

<style scoped>
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

li > .how {
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
  margin: 0.5rem 0;
}
</style>
