<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { useI18n } from 'vue-i18n';
import type { Correction } from '../composables/useImport';
import { factOf } from '../logic/facts';

/** What was corrected so far; each can be undone. */
defineProps<{ corrections: Correction[] }>();
const emit = defineEmits<{ undo: [correction: Correction] }>();
const { t } = useI18n();
const told = (c: Correction) =>
  t('import.madeOf', {
    column: factOf(t, c.column),
    row: c.row ? `, ${c.row}` : '',
    text: c.text,
    as: c.as ?? t('import.unknownShort'),
  });
</script>

<template>
  <details class="made">
    <summary>{{ $t('import.made', corrections.length) }}</summary>
    <ul>
      <li v-for="one in corrections" :key="JSON.stringify(one)">
        {{ told(one) }}
        <v-btn
          :icon="mdiClose"
          size="x-small"
          variant="text"
          :aria-label="`${$t('import.undo')}: ${told(one)}`"
          :title="$t('import.undo')"
          @click="emit('undo', one)"
        />
      </li>
    </ul>
  </details>
</template>

<style scoped>
.made {
  margin: 1rem 0;
}

summary {
  cursor: pointer;
}

ul {
  columns: 24rem;
}
</style>
