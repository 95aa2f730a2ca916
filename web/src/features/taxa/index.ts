export { default as AssessDialog } from './components/AssessDialog.vue';
export { default as AddTaxaDialog } from './components/AddTaxaDialog.vue';
export { default as TaxonEditor } from './components/TaxonEditor.vue';
export { default as TaxonOperations } from './components/TaxonOperations.vue';
export { default as TaxonTree } from './components/TaxonTree.vue';
export { KNOWLEDGE } from './logic/hazards';
export { taxonTree } from './logic/taxonTree';
export type { TreeRow } from './logic/taxonTree';
