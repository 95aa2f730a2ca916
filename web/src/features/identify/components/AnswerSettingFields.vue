<script setup lang="ts">
import { useI18n } from 'vue-i18n';
import { toQuery, type ViewingConditions } from '@/shared/viewing/conditions';
import { usePreferences } from '@/stores/preferences';
import type { Answers } from '../composables/useAnswers';
import type { Limit } from '../logic/limits';

/** How answers are used, and what can be seen with what. */
const props = defineProps<{ answers: Answers; limits: Limit[] }>();
const { t } = useI18n();
const preferences = usePreferences();
const MOST_CONTRADICTIONS = 3;

const a = props.answers;
const months = [
  { value: 0, title: t('key.anyMonth') },
  ...Array.from({ length: 12 }, (_, i) => ({ value: i + 1, title: t(`month.${i + 1}`) })),
];
const readers = (['TRAINED', 'NOVICE'] as const).map((value) => ({ value, title: t(`observer.${value}`) }));
const allowed = Array.from({ length: MOST_CONTRADICTIONS + 1 }, (_, k) => ({
  value: k,
  title: t('school.allowed', { n: k }, k),
}));

function limit(of: Limit['of'], values: string[] | null) {
  const next: ViewingConditions = { ...a.atHand.value, [of]: values ?? [] };
  void a.ask({ [of]: toQuery(next)[of] as string | undefined });
}
</script>

<template>
  <div class="fields">
    <v-select
      :model-value="a.month.value"
      :items="months"
      :label="$t('ask.month')"
      hide-details
      @update:model-value="a.ask({ month: $event ? String($event) : undefined })"
    />
    <v-select
      :model-value="a.novice.value ? 'NOVICE' : 'TRAINED'"
      :items="readers"
      :label="$t('observer.label')"
      hide-details
      @update:model-value="a.ask({ reader: $event === 'NOVICE' ? 'new' : undefined })"
    />
    <v-select
      v-for="one in limits"
      :key="one.of"
      :model-value="a.atHand.value[one.of]"
      :items="one.items"
      :label="$t(`apart.${one.of}`)"
      multiple
      clearable
      hide-details
      @update:model-value="limit(one.of, $event)"
    />
    <v-btn-toggle
      :model-value="a.strikeOut.value ? 'strike-out' : 'weigh'"
      mandatory
      density="compact"
      variant="outlined"
      divided
      :aria-label="$t('school.label')"
      @update:model-value="a.ask({ school: $event === 'strike-out' ? 'strike-out' : undefined })"
    >
      <v-btn value="weigh" size="small">{{ $t('school.weigh') }}</v-btn>
      <v-btn value="strike-out" size="small">{{ $t('school.strikeOut') }}</v-btn>
    </v-btn-toggle>
    <v-select
      v-if="a.strikeOut.value"
      :model-value="a.tolerance.value"
      :items="allowed"
      :label="$t('school.tolerance')"
      hide-details
      @update:model-value="a.ask({ k: $event ? String($event) : undefined })"
    />
    <v-switch
      v-if="a.month.value"
      :model-value="a.presence.value"
      :label="$t('ask.presence')"
      hide-details
      density="compact"
      color="primary"
      @update:model-value="a.ask({ presence: $event ? undefined : 'off' })"
    />
    <v-switch v-model="preferences.plain" :label="$t('plain')" hide-details density="compact" color="primary" />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 16rem), 1fr));
  gap: 0.75rem 1rem;
  align-items: center;
  padding-bottom: 0.75rem;
}

.fields > .v-btn-group {
  width: max-content;
}
</style>
