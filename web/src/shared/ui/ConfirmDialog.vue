<script setup lang="ts">
import ModalDialog from './ModalDialog.vue';

/** Asks before something that takes more than it seems to. */
defineProps<{ title: string; text: string; yes: string }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ confirm: [] }>();

function confirm() {
  emit('confirm');
  open.value = false;
}
</script>

<template>
  <ModalDialog v-model="open" max-width="30rem" :aria-label="title">
    <v-card>
      <v-card-title>{{ title }}</v-card-title>
      <v-card-text>{{ text }}</v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="open = false">{{ $t('leave') }}</v-btn>
        <v-btn color="primary" variant="flat" autofocus @click="confirm">{{ yes }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>
