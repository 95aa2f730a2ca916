<script setup lang="ts">
import { computed } from 'vue';
import { usePictures } from './pictures';

/** A picture on paper of its own, so that ink can be seen by night too. Nothing where there is none. */
const props = defineProps<{ id: string; large?: boolean; decorative?: boolean }>();
const pictures = usePictures();
const picture = computed(() => pictures(props.id));
</script>

<template>
  <img
    v-if="picture"
    class="picture"
    :class="{ large }"
    :src="large ? picture.src : picture.small"
    :alt="decorative ? '' : picture.shows"
    loading="lazy"
  />
</template>

<style scoped>
.picture {
  width: 6.4rem;
  height: 4.8rem;
  object-fit: contain;
  background: #fdfaf2;
  border: 1px solid var(--rule);
}

.picture.large {
  width: 100%;
  height: clamp(5rem, 13vh, 9rem);
}
</style>
