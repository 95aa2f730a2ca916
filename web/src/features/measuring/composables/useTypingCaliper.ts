import { useEventListener, useLocalStorage } from '@vueuse/core';

/**
 * A caliper that types like a keyboard types into whatever has the focus. Where one is said to be in use, what it types goes
 * into the field of readings, wherever the focus is, unless that is another field.
 */
export function useTypingCaliper(field: () => HTMLInputElement | null | undefined) {
  const inUse = useLocalStorage('polyclave.typing-caliper', false);

  useEventListener(
    window,
    'keydown',
    (event) => {
      const into = event.target as HTMLElement;
      const elsewhere = into.closest('input, textarea, select, [contenteditable], [role="dialog"], [role="listbox"]');
      const begins = /^[\d.,+-]$/.test(event.key) && !event.ctrlKey && !event.metaKey && !event.altKey;
      const to = field();
      if (!inUse.value || !begins || elsewhere || !to) return;
      // The key itself then lands in the field: it is typed where the focus is by now.
      to.focus();
      event.stopPropagation();
    },
    { capture: true },
  );

  /** Some end each reading with Tab, which would leave the field. */
  function endsReading(event: KeyboardEvent, text: string): boolean {
    return inUse.value && event.key === 'Tab' && !event.shiftKey && /\d/.test(text);
  }

  return { inUse, endsReading };
}
