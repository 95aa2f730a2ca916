<script setup lang="ts">
import ModalDialog from './ModalDialog.vue';
import ProblemNote from './ProblemNote.vue';

/** Asks for what its fields hold, before something is done or shown with it. */
const open = defineModel<boolean>({ required: true });
withDefaults(
  defineProps<{
    title: string;
    text: string;
    yes: string;
    disabled?: boolean;
    busy?: boolean;
    problem?: Error | null;
    grave?: boolean;
    width?: string;
  }>(),
  { problem: null, width: '34rem' },
);
const emit = defineEmits<{ give: [] }>();
</script>

<template>
  <ModalDialog v-model="open" :max-width="width" scrollable :aria-label="title">
    <v-card class="pa-4">
      <h2>{{ title }}</h2>
      <p>{{ text }}</p>
      <form @submit.prevent="emit('give')">
        <slot />
        <ProblemNote :problem="problem" />
        <div class="buttons">
          <v-btn
            type="submit"
            :color="grave ? 'error' : 'primary'"
            variant="flat"
            :disabled="disabled"
            :loading="busy"
            >{{ yes }}</v-btn
          >
          <slot name="more" />
          <v-btn variant="text" @click="open = false">{{ $t('leave') }}</v-btn>
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
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>
