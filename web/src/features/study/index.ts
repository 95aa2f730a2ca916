export { default as StudyFrame } from './pages/StudyFrame.vue';
export { useStudy, provideStudy } from './composables/useStudy';
export { useEditing } from './composables/useEditing';
export type { StudyModel } from './composables/useStudy';
export { isOpen, useFindings } from './composables/useFindings';
export type { Finding } from './composables/useFindings';
