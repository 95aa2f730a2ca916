export { default as ScorePage } from './pages/ScorePage.vue';
export { default as ScoringQueue } from './components/ScoringQueue.vue';
export type { QueueItem } from './components/ScoringQueue.vue';
