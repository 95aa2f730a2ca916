<script setup lang="ts">
import '../cover.css';

/** The cover as readers will get it; its links lead nowhere yet. */
defineProps<{ html: string }>();
</script>

<template>
  <!-- The server escapes what people wrote. -->
  <!-- eslint-disable-next-line vue/no-v-html -->
  <div class="edition-cover preview" inert v-html="html" />
</template>

<style scoped>
.preview {
  max-height: 34rem;
  overflow: auto;
  border: 1px solid var(--rule);
  font-size: 0.85rem;
}

.preview :deep(h1) {
  font-size: 1.4rem;
}

.preview :deep(h2) {
  font-size: 1.1rem;
}
</style>
