export { default as ScopePage } from './pages/ScopePage.vue';
export { taxonTree } from './logic/taxonTree';
export type { TreeRow } from './logic/taxonTree';
