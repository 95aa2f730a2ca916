<script setup lang="ts">
import { computed } from 'vue';
import StatePicture from '@/shared/picture/StatePicture.vue';
import { useGlossary } from './glossary';

/** A text whose terms explain themselves when pointed at, tapped or focused. */
const props = defineProps<{ text: string }>();
const finder = useGlossary();
const pieces = computed(() => finder.value.pieces(props.text));
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i">
    <v-menu
      v-if="piece.term"
      open-on-hover
      open-on-focus
      :close-on-content-click="false"
      location="top"
      max-width="320"
    >
      <template #activator="{ props: activator }">
        <button type="button" class="term" v-bind="activator" @click.stop>{{ piece.text }}</button>
      </template>
      <v-card class="explained">
        <StatePicture :id="piece.term.picture" decorative />
        <strong>{{ piece.term.term }}</strong>
        <p>{{ piece.term.definition }}</p>
        <p v-if="piece.term.plain" class="quiet">{{ piece.term.plain }}</p>
      </v-card>
    </v-menu>
    <template v-else>{{ piece.text }}</template>
  </template>
</template>

<style scoped>
.term {
  font: inherit;
  color: inherit;
  text-decoration: underline dotted rgb(var(--v-theme-primary)) 2px;
  text-underline-offset: 0.2em;
  cursor: help;
}

.explained {
  padding: 0.7rem 0.9rem;
}
</style>
