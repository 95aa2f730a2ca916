<script setup lang="ts">
import { computed, type Ref } from 'vue';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';

/** Asks before what was typed is lost by choosing another thing, and then goes there. */
const props = defineProps<{ editing: { leaving: Ref<(() => void) | null>; discard: () => void } }>();
const asks = computed({
  get: () => props.editing.leaving.value !== null,
  set: (open) => {
    if (!open) stay();
  },
});

function stay() {
  const { leaving } = props.editing;
  leaving.value = null;
}

function leave() {
  const go = props.editing.leaving.value;
  stay();
  props.editing.discard();
  go?.();
}
</script>

<template>
  <ConfirmDialog
    v-model="asks"
    :title="$t('lose.title')"
    :text="$t('lose.text')"
    :yes="$t('discard')"
    @confirm="leave"
  />
</template>
