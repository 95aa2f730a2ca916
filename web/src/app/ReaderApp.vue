<script setup lang="ts">
import { useAppearance } from './useAppearance';

useAppearance();
</script>

<template>
  <v-app>
    <router-view />
  </v-app>
</template>
