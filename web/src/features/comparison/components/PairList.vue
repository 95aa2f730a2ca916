<script setup lang="ts">
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { addressOf } from '@/api/client';
import { useStudy } from '@/study-kernel';
import { asked, type ViewingConditions } from '@/shared/viewing/conditions';
import { VERDICTS, weakPairs, type PairTable } from '../logic/map';

/** The same as the map, as a list: pairs that are not firmly separated, worst first. */
const props = defineProps<{ table: PairTable; conditions: ViewingConditions; chosen: string[] }>();
const emit = defineEmits<{ choose: [pair: [string, string]] }>();
const model = useStudy();
const { t } = useI18n();
const AT_ONCE = 200;
const typed = ref('');
const shown = ref(AT_ONCE);
const all = computed(() => weakPairs(props.table, props.conditions.safely));
const pairs = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean);
  return all.value.filter((p) =>
    words.every((w) =>
      `${p.first.name} ${p.second.name} ${t(`apart.verdict.${VERDICTS[p.sign]}`)}`.toLowerCase().includes(w),
    ),
  );
});
const file = (every: boolean) =>
  addressOf('/api/v1/studies/{slug}/apart/pairs', { slug: model.slug, ...asked(props.conditions, { all: every }) });
</script>

<template>
  <div class="list">
    <div class="tools">
      <v-text-field v-model="typed" :label="$t('apart.find')" density="compact" clearable hide-details />
      <v-btn size="small" variant="text" :href="file(false)">{{ $t('apart.csv') }}</v-btn>
      <v-btn size="small" variant="text" :href="file(true)">{{ $t('apart.csvAll') }}</v-btn>
    </div>
    <p role="status" class="figures">{{ $t('apart.listed', { n: pairs.length }, pairs.length) }}</p>
    <table v-if="pairs.length">
      <thead>
        <tr>
          <th scope="col">{{ $t('apart.first') }}</th>
          <th scope="col">{{ $t('apart.second') }}</th>
          <th scope="col">{{ $t('apart.told') }}</th>
          <th scope="col">
            <span class="sr-only">{{ $t('apart.card') }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="pair in pairs.slice(0, shown)"
          :key="`${pair.first.id} ${pair.second.id}`"
          :class="{ chosen: chosen.includes(pair.first.id) && chosen.includes(pair.second.id) }"
        >
          <td>{{ pair.first.dangerous ? '⚠ ' : '' }}{{ pair.first.name }}</td>
          <td>{{ pair.second.dangerous ? '⚠ ' : '' }}{{ pair.second.name }}</td>
          <td>{{ $t(`apart.verdict.${VERDICTS[pair.sign]}`) }}</td>
          <td>
            <v-btn
              size="small"
              variant="text"
              :aria-label="$t('apart.openCard', { first: pair.first.name, second: pair.second.name })"
              @click="emit('choose', [pair.first.id, pair.second.id])"
              >{{ $t('apart.card') }}</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
    <v-btn v-if="pairs.length > shown" size="small" @click="shown += AT_ONCE">{{
      $t('apart.more', { n: pairs.length - shown })
    }}</v-btn>
  </div>
</template>

<style scoped>
.list {
  overflow: auto;
  padding: 0.6rem 0.8rem 2rem;
}

.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.8rem;
  align-items: center;
  margin-bottom: 0.5rem;
}

.tools > :first-child {
  flex: 1 1 12rem;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 0.25rem 0.5rem 0.25rem 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
}

td:nth-child(-n + 2) {
  font-style: italic;
}

.chosen {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 12%, transparent);
}
</style>
