export { default as SnapshotList } from './components/SnapshotList.vue';
