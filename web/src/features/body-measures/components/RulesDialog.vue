<script setup lang="ts">
import { ref, watch } from 'vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useRules, type Rule } from '../composables/useRules';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Everybody measures their own fingers, several times, so that the spread shows. */
const open = defineModel<boolean>({ required: true });
const { rules, measure } = useRules();
const { busy, problem, run } = useAction();
const typed = ref<Partial<Record<Rule, string>>>({});
const spread = (mm: number) => (2 * mm).toPrecision(2);

watch(
  [open, rules],
  () => {
    for (const rule of rules.value) typed.value[rule.rule] ??= rule.measured.join('; ');
  },
  { immediate: true },
);

const keep = (rule: Rule) =>
  run(() =>
    measure(
      rule,
      (typed.value[rule] ?? '')
        .split(/[;\n]|,\s/)
        .map((s) => s.trim())
        .filter(Boolean),
    ),
  );
</script>

<template>
  <ModalDialog v-model="open" max-width="640">
    <v-card :title="$t('rough.title')">
      <v-card-text>
        <p class="quiet">{{ $t('rough.how') }}</p>
        <form v-for="rule in rules" :key="rule.rule" class="rule" @submit.prevent="keep(rule.rule)">
          <div class="size">
            <strong>{{ $t(`rough.of.${rule.rule}`) }}</strong>
            <span class="quiet">{{ $t(`rough.where.${rule.rule}`) }}</span>
            <span class="figures">{{
              $t(rule.measured.length ? 'rough.own' : 'rough.atLarge', {
                mean: rule.mean.toPrecision(3),
                spread: spread(rule.spread),
              })
            }}</span>
          </div>
          <v-text-field
            v-model="typed[rule.rule]"
            :label="$t('rough.measured', { rule: $t(`rough.of.${rule.rule}`) })"
            :placeholder="$t('rough.like')"
            density="compact"
            hide-details
            autocomplete="off"
          />
          <v-btn
            type="submit"
            size="small"
            :loading="busy"
            :aria-label="$t('rough.keep', { rule: $t(`rough.of.${rule.rule}`) })"
            >{{ $t('save') }}</v-btn
          >
        </form>
        <ProblemNote :problem="problem" />
        <p>{{ $t('rough.limits') }}</p>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="open = false">{{ $t('close') }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
.rule {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  align-items: center;
  gap: 0.75rem;
  border-top: 1px solid var(--rule);
  padding: 0.6rem 0;
}

.rule span {
  display: block;
  font-size: 0.92rem;
}

@media (max-width: 600px) {
  .rule {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .size {
    grid-column: 1 / -1;
  }
}
</style>
