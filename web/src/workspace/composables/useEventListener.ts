import { onMounted, onUnmounted } from 'vue';

/** Listens on the window for as long as the component lives. */
export function useEventListener<K extends keyof WindowEventMap>(
  type: K,
  listener: (event: WindowEventMap[K]) => void,
) {
  onMounted(() => window.addEventListener(type, listener));
  onUnmounted(() => window.removeEventListener(type, listener));
}
