<script setup lang="ts">
import { nextTick, onUnmounted, watch } from 'vue';

/** A dialog; when it closes, whatever had the focus has it again. */
const open = defineModel<boolean>({ required: true });
let before: Element | null = null;

async function giveBack() {
  const back = before;
  before = null;
  await nextTick();
  // Whoever closed it may have sent the focus elsewhere already.
  const lost = document.activeElement === document.body || document.activeElement?.closest('.v-overlay');
  if (lost && back instanceof HTMLElement && back.isConnected) back.focus({ preventScroll: true });
}

watch(
  open,
  (now) => {
    if (now) before = document.activeElement;
    else void giveBack();
  },
  { immediate: true },
);
// Some are taken away when they close.
onUnmounted(giveBack);
</script>

<template>
  <v-dialog v-model="open"><slot /></v-dialog>
</template>
