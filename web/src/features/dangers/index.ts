export { default as DangersPage } from './pages/DangersPage.vue';
export { default as FailingNote } from './components/FailingNote.vue';
