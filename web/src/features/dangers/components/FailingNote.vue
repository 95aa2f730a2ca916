<script setup lang="ts">
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { useMonths } from '@/shared/calendar/months';

/** Against what, and when, a danger cannot be ruled out. An imported study can have hundreds of names here. */
const props = defineProps<{ failing: Pick<Schemas['Failing'], 'kind' | 'otherNames' | 'months'> }>();
const MOST_NAMES = 12;
const { t } = useI18n();
const monthsOf = useMonths();
const whole = ref(false);
const hidden = computed(() => (whole.value ? 0 : Math.max(0, props.failing.otherNames.length - MOST_NAMES)));
const names = computed(() => {
  const shown = hidden.value ? props.failing.otherNames.slice(0, MOST_NAMES) : props.failing.otherNames;
  return hidden.value ? t('dangers.andMore', { names: shown.join('; '), n: hidden.value }) : shown.join('; ');
});
</script>

<template>
  <p>
    {{ $t(`dangers.kind.${failing.kind}`, { names }) }}
    <span v-if="failing.kind !== 'NOT_IN_KEY'" class="figures">{{
      failing.months.length === 12 ? $t('publish.allYear') : monthsOf(failing.months)
    }}</span>
    <v-btn v-if="hidden" variant="text" density="compact" @click="whole = true">{{
      $t('dangers.allNames', { n: failing.otherNames.length })
    }}</v-btn>
  </p>
</template>
