export { default as WaysTo } from './components/WaysTo.vue';
export { default as NameAgainstFind } from './components/NameAgainstFind.vue';
export type { Because } from './logic/points';
export { default as StepByStep } from './components/StepByStep.vue';
