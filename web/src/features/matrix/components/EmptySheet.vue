<script setup lang="ts">
import { mdiFileTableOutline, mdiFormatListBulleted } from '@mdi/js';
import { computed, ref } from 'vue';
import { AddCharactersDialog } from '@/features/characters';
import { AddTaxaDialog } from '@/features/taxa';

/** A study that has no taxa or no characters yet: what it takes to begin. */
const props = defineProps<{ slug: string; taxa: number; characters: number; editable: boolean }>();
const emit = defineEmits<{ added: [] }>();
const open = ref<'taxa' | 'characters' | null>(null);
const lists = computed(() => (['taxa', 'characters'] as const).map((name) => ({ name, count: props[name] })));
const next = computed(() => lists.value.find((list) => !list.count));
</script>

<template>
  <section class="page" aria-labelledby="empty">
    <h2 id="empty">{{ $t('empty.title') }}</h2>
    <p>{{ $t(editable ? 'empty.lead' : 'empty.readOnly') }}</p>
    <div v-if="editable" class="ways">
      <template v-for="list in lists" :key="list.name">
        <v-btn
          :color="list === next ? 'primary' : undefined"
          :variant="list === next ? 'flat' : 'outlined'"
          :prepend-icon="mdiFormatListBulleted"
          @click="open = list.name"
          >{{ $t(`empty.${list.name}`) }}</v-btn
        >
        <span v-if="list.count" class="quiet">{{ $t('empty.done', { n: list.count }) }}</span>
      </template>
      <v-btn :prepend-icon="mdiFileTableOutline" :to="{ path: '/import', query: { into: slug } }">{{
        $t('empty.table')
      }}</v-btn>
    </div>
    <AddTaxaDialog :model-value="open === 'taxa'" @update:model-value="open = null" @added="emit('added')" />
    <AddCharactersDialog
      :model-value="open === 'characters'"
      @update:model-value="open = null"
      @added="emit('added')"
    />
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
