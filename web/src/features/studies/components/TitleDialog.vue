<script setup lang="ts">
import { ref } from 'vue';
import ModalDialog from '@/shared/ui/ModalDialog.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';

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
  <ModalDialog :model-value="true" max-width="34rem" @update:model-value="emit('closed')">
    <v-card class="pa-4">
      <h2>{{ $t(`studies.ask.${what}.title`, { title }) }}</h2>
      <p>{{ $t(`studies.ask.${what}.text`) }}</p>
      <form @submit.prevent="emit('give', typed.trim())">
        <v-text-field
          v-model="typed"
          :label="$t(what === 'address' ? 'studies.ask.address.label' : 'studies.ask.label')"
          maxlength="200"
          autofocus
          hide-details
        />
        <ProblemNote :problem="problem" />
        <div class="buttons">
          <v-btn
            type="submit"
            :color="what === 'delete' ? 'error' : 'primary'"
            variant="flat"
            :disabled="what === 'delete' ? typed.trim() !== title.trim() : !typed.trim()"
            :loading="busy"
            >{{ $t(`studies.ask.${what}.yes`) }}</v-btn
          >
          <v-btn variant="text" @click="emit('closed')">{{ $t('leave') }}</v-btn>
        </div>
      </form>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.8rem;
  margin-top: 0.75rem;
}

.buttons {
  display: flex;
  gap: 0.6rem;
}
</style>
