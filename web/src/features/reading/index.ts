export { default as StepByStep } from './components/StepByStep.vue';
