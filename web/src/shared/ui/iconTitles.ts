/** Buttons that show an icon alone say in words what they do when the pointer rests on them. */
export function titleIcons() {
  document.addEventListener('pointerover', (event) => {
    const button = event.target instanceof Element ? event.target.closest('.v-btn--icon[aria-label]') : null;
    const words = button?.getAttribute('aria-label');
    if (button && words && button.getAttribute('title') !== words) button.setAttribute('title', words);
  });
}
