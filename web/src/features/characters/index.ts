export { default as AddCharactersDialog } from './components/AddCharactersDialog.vue';
export { default as LeadFields } from './components/LeadFields.vue';
export { default as CharactersPage } from './pages/CharactersPage.vue';
export { unitsOf } from './logic/characters';
