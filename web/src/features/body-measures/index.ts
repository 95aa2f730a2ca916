export { default as RoughLength } from './components/RoughLength.vue';
export { default as RulesDialog } from './components/RulesDialog.vue';
export { RULES, useRules, type Rule } from './composables/useRules';
