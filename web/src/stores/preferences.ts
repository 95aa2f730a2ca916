import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';

/** Choices that belong to this browser. */
export const usePreferences = defineStore('preferences', () => {
  const dark = useLocalStorage('polyclave.dark', false);
  const plain = useLocalStorage('polyclave.plain', false);
  return { dark, plain };
});
