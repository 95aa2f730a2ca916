import { defineStore } from 'pinia';
import { ref, watch } from 'vue';

function stored(name: string, otherwise: string): string {
  return localStorage.getItem(`polyclave.${name}`) ?? otherwise;
}

/** Choices that belong to this browser. */
export const usePreferences = defineStore('preferences', () => {
  const dark = ref(stored('dark', 'false') === 'true');
  const plain = ref(stored('plain', 'false') === 'true');
  watch(dark, (on) => localStorage.setItem('polyclave.dark', String(on)));
  watch(plain, (on) => localStorage.setItem('polyclave.plain', String(on)));
  return { dark, plain };
});
