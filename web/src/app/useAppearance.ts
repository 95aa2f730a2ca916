import { watchEffect } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { useTheme } from 'vuetify';
import { subject } from '@/shared/ui/pageTitle';
import { usePreferences } from '@/stores/preferences';

/** Light or dark as the reader has it, and the page's title in the window. */
export function useAppearance() {
  const preferences = usePreferences();
  const theme = useTheme();
  const route = useRoute();
  const { t } = useI18n();
  watchEffect(() => theme.change(preferences.dark ? 'night' : 'paper'));
  watchEffect(() => {
    const page = route.meta.title ? t(route.meta.title) : '';
    document.title = [page, subject.value, t('product')].filter(Boolean).join(' · ');
  });
}
