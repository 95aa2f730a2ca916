import { useLocalStorage, usePreferredDark } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';

/** Choices that belong to this browser. */
export const usePreferences = defineStore('preferences', () => {
  const system = usePreferredDark();
  const theme = useLocalStorage<'paper' | 'night' | 'system'>('polyclave.theme', 'system');
  /** As the system has it, until somebody chooses; choosing what the system has follows it again. */
  const dark = computed({
    get: () => (theme.value === 'system' ? system.value : theme.value === 'night'),
    set: (now) => (theme.value = now === system.value ? 'system' : now ? 'night' : 'paper'),
  });
  const plain = useLocalStorage('polyclave.plain', false);
  return { dark, plain };
});
