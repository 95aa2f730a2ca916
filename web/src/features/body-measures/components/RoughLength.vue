<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue';
import { RULES, type Rule } from '../composables/useRules';

/** A length told in fingers and the like, for whoever has no ruler. */
const emit = defineEmits<{ told: [times: number, rule: Rule] }>();
const RulesDialog = defineAsyncComponent(() => import('./RulesDialog.vue'));
const TIMES = [0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10];
const times = ref(1);
const rule = ref<Rule>('FINGER_WIDTH');
const calibrating = ref(false);
</script>

<template>
  <details class="rough">
    <summary>{{ $t('rough.ask') }}</summary>
    <form @submit.prevent="emit('told', times, rule)">
      <select v-model.number="times" :aria-label="$t('rough.times')">
        <option v-for="n in TIMES" :key="n" :value="n">{{ $n(n) }}</option>
      </select>
      <span aria-hidden="true">×</span>
      <select v-model="rule" :aria-label="$t('rough.rule')">
        <option v-for="r in RULES" :key="r" :value="r">{{ $t(`rough.of.${r}`) }}</option>
      </select>
      <button type="submit">{{ $t('ask.enter') }}</button>
      <button type="button" class="link" @click="calibrating = true">{{ $t('rough.mine') }}</button>
    </form>
    <p class="quiet">{{ $t('rough.limits') }}</p>
    <RulesDialog v-if="calibrating" v-model="calibrating" />
  </details>
</template>

<style scoped>
.rough {
  flex-basis: 100%;
}

summary {
  min-height: 1.75rem;
  cursor: pointer;
}

form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.45rem;
  margin-top: 0.35rem;
}

select,
button:not(.link) {
  border: 1px solid currentColor;
  border-radius: 3px;
  padding: 0.4rem;
  min-height: 2.5rem;
  background: rgb(var(--v-theme-surface));
  color: inherit;
}

.link {
  text-decoration: underline;
  min-height: 1.75rem;
}

p {
  font-size: 0.92rem;
  margin: 0.35rem 0 0;
}

@media (max-width: 600px) {
  summary {
    padding: 0.65rem 0;
  }

  .link {
    min-height: 2.75rem;
  }
}
</style>
