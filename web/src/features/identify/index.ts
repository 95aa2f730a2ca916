/** Readers of an edition need the rest of this, and neither the page of a study's members nor a handful at once. */
export const loadStudyAnyOrderPage = () => import('./pages/StudyAnyOrderPage.vue');
export const loadHandfulKey = () => import('./components/HandfulKey.vue');
export { default as AnyOrderKey } from './components/AnyOrderKey.vue';
export { default as AnswerCard } from './components/AnswerCard.vue';
export { default as DangerNote } from './components/DangerNote.vue';
export { useAnswers } from './composables/useAnswers';
