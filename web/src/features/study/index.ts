export { default as StudyFrame } from './pages/StudyFrame.vue';
export { useStudy, provideStudy } from './composables/useStudy';
export type { StudyModel } from './composables/useStudy';
