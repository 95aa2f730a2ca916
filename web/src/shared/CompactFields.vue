<script setup lang="ts">
import { computed } from 'vue';

/** Fields that stand close: what they have in common is said once. */
const props = defineProps<{ readonly: boolean }>();
const defaults = computed(() => {
  const compact = { density: 'compact', hideDetails: true, readonly: props.readonly };
  return {
    VTextField: compact,
    VTextarea: { ...compact, rows: 1, autoGrow: true },
    VSelect: compact,
    VCombobox: { ...compact, variant: 'outlined' },
    VCheckbox: compact,
  };
});
</script>

<template>
  <v-defaults-provider :defaults="defaults"><slot /></v-defaults-provider>
</template>
