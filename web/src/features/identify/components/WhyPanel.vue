<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import TaxonName from '@/shared/taxon/TaxonName.vue';

/** Why a name stands where it does, answer by answer; of two names, what speaks for which. */
const props = defineProps<{
  names: Schemas['StandingView'][];
  /** What was seen, by character. */
  clauses: Map<string, string>;
}>();
const emit = defineEmits<{ close: [row: string] }>();

const first = computed(() => props.names[0]);
const rows = computed(() =>
  (first.value?.why ?? []).map((w) => ({
    ...w,
    said: w.implied ? w.label : (props.clauses.get(w.character) ?? w.label),
    each: props.names.map((n) => n.why.find((x) => x.character === w.character)),
  })),
);
</script>

<template>
  <aside v-if="first" class="why" :aria-label="$t('ask.why')">
    <h3>{{ $t(names.length > 1 ? 'ask.compareTwo' : 'ask.why') }}</h3>
    <table class="figures">
      <thead>
        <tr>
          <td />
          <th v-for="n in names" :key="n.name.row" scope="col">
            <TaxonName :label="n.name.label" :stage="n.name.stage" />
            <button
              type="button"
              :aria-label="$t('ask.closeWhy', { name: n.name.label })"
              @click="emit('close', n.name.row)"
            >
              ×
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">{{ $t('ask.before') }}</th>
          <td v-for="n in names" :key="n.name.row">{{ signed(n.prior) }}</td>
        </tr>
        <tr v-for="w in rows" :key="w.character">
          <th scope="row">
            {{ w.said }} <span v-if="w.implied" class="quiet">{{ $t('ask.implied') }}</span>
          </th>
          <td v-for="(x, i) in w.each" :key="i">
            {{ x ? signed(x.bits) : '' }}
            <span v-if="x?.contradicts" class="contra">{{ $t('ask.contradicts') }}</span>
            <span v-if="x && !x.known" class="quiet">{{ $t('ask.unknown') }}</span>
          </td>
        </tr>
        <tr class="sum">
          <th scope="row">{{ $t('ask.sum') }}</th>
          <td v-for="n in names" :key="n.name.row">{{ signed(n.score) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="first.name.hazardText" class="quiet">{{ first.name.hazardText }}</p>
    <p v-if="names.length === 1" class="quiet">{{ $t('ask.chooseSecond') }}</p>
  </aside>
</template>

<script lang="ts">
function signed(bits: number): string {
  return `${bits > 0 ? '+' : bits < 0 ? '−' : ''}${Math.abs(bits).toFixed(2)}`;
}
</script>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

th {
  text-align: left;
  font-weight: 400;
  padding: 0.2rem 0.5rem 0.2rem 0;
  vertical-align: top;
}

thead button {
  min-width: 2rem;
  min-height: 2rem;
}

td {
  text-align: right;
  vertical-align: top;
  padding: 0.2rem 0;
}

.sum th,
.sum td {
  border-top: 1px solid currentColor;
  font-weight: 700;
}

.contra {
  display: block;
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
</style>
