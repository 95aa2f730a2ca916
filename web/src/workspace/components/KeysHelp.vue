<script setup lang="ts">
import { computed } from 'vue';
import KeyList from '@/shared/keys/KeyList.vue';
import { EVERYWHERE, OF_STAGE } from '@/shared/keys/keys';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** The keys of the present screen. */
const props = defineProps<{ screen: string | undefined }>();
const open = defineModel<boolean>({ required: true });
const keys = computed(() => [...(OF_STAGE[props.screen ?? ''] ?? []), ...EVERYWHERE]);
</script>

<template>
  <ModalDialog v-model="open" max-width="32rem" :aria-label="$t('keys.title')">
    <v-card class="pa-4">
      <h2>{{ $t('keys.title') }}</h2>
      <KeyList :keys="keys" />
      <v-btn @click="open = false">{{ $t('close') }}</v-btn>
    </v-card>
  </ModalDialog>
</template>
