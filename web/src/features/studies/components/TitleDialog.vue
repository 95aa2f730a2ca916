<script setup lang="ts">
import { ref } from 'vue';
import AskDialog from '@/shared/ui/AskDialog.vue';

/** Asks for a title or an address: a new one, that of a copy, or that of the study that is to be deleted. */
const props = defineProps<{
  what: 'rename' | 'address' | 'copy' | 'delete';
  title: string;
  slug: string;
  busy: boolean;
  problem: Error | null;
}>();
const emit = defineEmits<{ give: [title: string]; closed: [] }>();
const typed = ref({ delete: '', address: props.slug, rename: props.title, copy: props.title }[props.what]);
</script>

<template>
  <AskDialog
    :model-value="true"
    :title="$t(`studies.ask.${what}.title`, { title })"
    :text="$t(`studies.ask.${what}.text`)"
    :yes="$t(`studies.ask.${what}.yes`)"
    :grave="what === 'delete'"
    :disabled="what === 'delete' ? typed.trim() !== title.trim() : !typed.trim()"
    :busy="busy"
    :problem="problem"
    @give="emit('give', typed.trim())"
    @update:model-value="emit('closed')"
  >
    <v-text-field
      v-model="typed"
      :label="$t(what === 'address' ? 'studies.ask.address.label' : 'studies.ask.label')"
      maxlength="200"
      autofocus
      hide-details
    />
  </AskDialog>
</template>
