<script setup lang="ts">
import { mdiFileTableOutline, mdiFormatListBulleted } from '@mdi/js';
import { ref } from 'vue';
import { AddCharactersDialog } from '@/features/characters';
import { AddTaxaDialog } from '@/features/taxa';

/** A study that has no taxa or no characters yet: what it takes to begin. */
defineProps<{ slug: string; taxa: number; characters: number; editable: boolean }>();
const taxaOpen = ref(false);
const charactersOpen = ref(false);
</script>

<template>
  <section class="page" aria-labelledby="empty">
    <h2 id="empty">{{ $t('empty.title') }}</h2>
    <p>{{ $t(editable ? 'empty.lead' : 'empty.readOnly') }}</p>
    <div v-if="editable" class="ways">
      <v-btn
        :color="taxa ? undefined : 'primary'"
        :variant="taxa ? 'outlined' : 'flat'"
        :prepend-icon="mdiFormatListBulleted"
        @click="taxaOpen = true"
        >{{ $t('empty.taxa') }}</v-btn
      >
      <span v-if="taxa" class="quiet">{{ $t('empty.done', { n: taxa }) }}</span>
      <v-btn
        :color="taxa && !characters ? 'primary' : undefined"
        :variant="taxa && !characters ? 'flat' : 'outlined'"
        :prepend-icon="mdiFormatListBulleted"
        @click="charactersOpen = true"
        >{{ $t('empty.characters') }}</v-btn
      >
      <span v-if="characters" class="quiet">{{ $t('empty.done', { n: characters }) }}</span>
      <v-btn :prepend-icon="mdiFileTableOutline" :to="{ path: '/import', query: { into: slug } }">{{
        $t('empty.table')
      }}</v-btn>
    </div>
    <AddTaxaDialog v-model="taxaOpen" />
    <AddCharactersDialog v-model="charactersOpen" />
  </section>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  align-items: center;
  margin-top: 1rem;
}
</style>
