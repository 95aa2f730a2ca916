export { default as WaysTo } from './components/WaysTo.vue';
export { default as NameCheck } from './components/NameCheck.vue';
export type { Because } from './logic/points';
export { default as StepByStep } from './components/StepByStep.vue';
