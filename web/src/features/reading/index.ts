export { default as WaysTo } from './components/WaysTo.vue';
export { default as StepByStep } from './components/StepByStep.vue';
