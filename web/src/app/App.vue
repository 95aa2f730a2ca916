<script setup lang="ts">
import { watchEffect } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { useTheme } from 'vuetify';
import LeaveDialog from '@/shared/ui/LeaveDialog.vue';
import { subject } from '@/shared/ui/pageTitle';
import { usePreferences } from '@/stores/preferences';

const preferences = usePreferences();
const theme = useTheme();
const route = useRoute();
const { t } = useI18n();
watchEffect(() => theme.change(preferences.dark ? 'night' : 'paper'));
watchEffect(() => {
  const page = route.meta.title ? t(route.meta.title) : '';
  document.title = [page, subject.value, t('product')].filter(Boolean).join(' · ');
});
</script>

<template>
  <v-app>
    <router-view />
    <LeaveDialog />
  </v-app>
</template>
