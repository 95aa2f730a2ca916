/** Readers of an edition need the rest of this, and not the page of its authors. */
export const loadKeyPage = () => import('./pages/KeyPage.vue');
export { useNamedKeys } from './composables/useNamedKeys';
export { madeFor } from './logic/madeFor';
export { default as OpenDanger } from './components/OpenDanger.vue';
export { default as PrintedKey } from './components/PrintedKey.vue';
export { letterOf, namesBelow, numbered } from './logic/arrivals';
export { endsOf, membersOf } from './logic/ends';
