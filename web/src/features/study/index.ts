export { default as StudyFrame } from './pages/StudyFrame.vue';
export { default as ChangeList } from './components/ChangeList.vue';
export { default as OperationDialog } from './components/OperationDialog.vue';
export { useStudy, provideStudy } from './composables/useStudy';
export { useEditing } from './composables/useEditing';
export type { StudyModel } from './composables/useStudy';
export type { Cell } from './composables/useColumns';
export { isOpen, useFindings } from './composables/useFindings';
export type { Finding } from './composables/useFindings';
