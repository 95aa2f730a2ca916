<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { mdiDeleteOutline } from '@mdi/js';
import WriteProblem from '@/shared/ui/WriteProblem.vue';

/** What stands around the fields of one object that is edited. */
defineProps<{ problem: Error | null; busy: boolean; removable: boolean }>();
const form = ref<HTMLFormElement>();
const emit = defineEmits<{ save: [over?: number]; theirs: []; discard: []; remove: [] }>();

onMounted(() => form.value?.scrollIntoView?.({ block: 'nearest' }));
</script>

<template>
  <form ref="form" class="shelf" @submit.prevent="emit('save')">
    <slot />
    <WriteProblem :problem="problem" @theirs="emit('theirs')" @mine="emit('save', $event)" />
    <div class="shelf-buttons">
      <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{ $t('save') }}</v-btn>
      <v-btn variant="text" @click="emit('discard')">{{ $t('discard') }}</v-btn>
      <v-spacer />
      <v-btn v-if="removable" color="error" :prepend-icon="mdiDeleteOutline" @click="emit('remove')">{{
        $t('remove')
      }}</v-btn>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.7rem;
  padding-top: 0.6rem;
  margin-top: 1rem;
  /* The foot of the frame covers the lowest part of the page. */
  scroll-margin: 1rem 0 5rem;
}
</style>
