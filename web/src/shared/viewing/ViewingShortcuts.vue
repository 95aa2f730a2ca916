<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { leafOf, withoutLens } from './choices';
import { EVERYTHING, isEverything, WINTER, type ViewingConditions } from './conditions';

/** What is often all that can be seen, one press each. */
const conditions = defineModel<ViewingConditions>({ required: true });
const props = defineProps<{ study: Schemas['StudyView'] }>();

const leaf = computed(() => leafOf(props.study));
const change = (changes: Partial<ViewingConditions>) => (conditions.value = { ...conditions.value, ...changes });
</script>

<template>
  <div class="shortcuts">
    <v-btn size="small" variant="text" :disabled="isEverything(conditions)" @click="conditions = { ...EVERYTHING }">{{
      $t('apart.all')
    }}</v-btn>
    <v-btn size="small" variant="text" @click="change({ months: [...WINTER] })">{{ $t('apart.winter') }}</v-btn>
    <v-btn v-if="leaf" size="small" variant="text" @click="change({ organs: [leaf] })">{{ $t('apart.leaves') }}</v-btn>
    <v-btn size="small" variant="text" @click="change({ methods: ['eye'] })">{{ $t('apart.byEye') }}</v-btn>
    <v-btn size="small" variant="text" @click="change({ methods: withoutLens(study) })">{{ $t('apart.noLens') }}</v-btn>
    <slot />
  </div>
</template>

<style scoped>
.shortcuts {
  display: flex;
  flex-wrap: wrap;
  margin-left: -0.5rem;
}
</style>
