<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { letterOf } from '@/features/key';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import { textOf, waysTo, type Step } from '../logic/path';

/** How a key leads to a taxon, lead by lead: read backwards from a name, it is a check of it. */
const props = defineProps<{ view: Schemas['KeyView']; row: string; plain: boolean }>();

const ways = computed(() => waysTo(props.view, props.row));
const statementsAt = (step: Step) =>
  props.view.couplets.find((c) => c.number === step.couplet)?.leads[step.lead]?.statements ?? [];
</script>

<template>
  <section v-if="ways.length">
    <h3>{{ $t('reading.waysTo') }}</h3>
    <p class="quiet">{{ $t('reading.waysToMeans') }}</p>
    <component :is="w ? 'details' : 'div'" v-for="(way, w) in ways" :key="textOf(way)">
      <summary v-if="w">{{ $t('reading.anotherWay', { n: way.length }, way.length) }}</summary>
      <ol>
        <li v-for="(step, i) in way" :key="step.couplet">
          <router-link :to="{ query: { view: 'key', at: textOf(way.slice(0, i)) || undefined } }" class="figures"
            >{{ step.couplet }}{{ letterOf(step.lead) }}</router-link
          >{{ ' '
          }}<template v-for="(said, k) in statementsAt(step)" :key="k"
            >{{ k ? '; ' : ''
            }}<span :class="said.role.toLowerCase()"><GlossaryText :text="plain ? said.plainText : said.text" /></span
          ></template>
        </li>
      </ol>
    </component>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0.3rem 0;
  padding: 0;
  font-family: var(--serif);
}

li {
  padding: 0.3rem 0;
}

.deciding {
  font-weight: 600;
}

.tendency {
  color: var(--faint);
}

a {
  display: inline-block;
  min-width: 2rem;
  font-family: var(--sans);
  font-weight: 600;
}

summary {
  cursor: pointer;
  min-height: 2rem;
}
</style>
