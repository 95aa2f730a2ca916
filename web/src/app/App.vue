<script setup lang="ts">
import LeaveDialog from '@/shared/ui/LeaveDialog.vue';
import { useAppearance } from './useAppearance';

useAppearance();
</script>

<template>
  <v-app>
    <router-view />
    <LeaveDialog />
  </v-app>
</template>
