export { default as StudyAnyOrderPage } from './pages/StudyAnyOrderPage.vue';
export { default as AnyOrderKey } from './components/AnyOrderKey.vue';
export { default as HandfulKey } from './components/HandfulKey.vue';
export { default as AnswerCard } from './components/AnswerCard.vue';
export { default as DangerNote } from './components/DangerNote.vue';
export { useAnswers } from './composables/useAnswers';
