<script setup lang="ts">
import { watchEffect } from 'vue';
import { useTheme } from 'vuetify';
import LeaveDialog from '@/shared/ui/LeaveDialog.vue';
import { usePreferences } from '@/stores/preferences';

const preferences = usePreferences();
const theme = useTheme();
watchEffect(() => theme.change(preferences.dark ? 'night' : 'paper'));
</script>

<template>
  <v-app>
    <router-view />
    <LeaveDialog />
  </v-app>
</template>
