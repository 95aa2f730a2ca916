export { default as StudyFrame } from './pages/StudyFrame.vue';
