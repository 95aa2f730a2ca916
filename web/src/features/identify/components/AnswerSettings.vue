<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { names } from '@/shared/viewing/choices';
import { toQuery, TREATMENTS, type ViewingConditions } from '@/shared/viewing/conditions';
import { usePreferences } from '@/stores/preferences';
import type { Answers } from '../composables/useAnswers';

/** How answers are used, and what can be seen with what: folded, and said in one line while it is. */
const props = defineProps<{ answers: Answers; characters: Schemas['StudyCharacter'][] }>();
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
const named = (values: string[]) => names(values).map((value) => ({ value, title: value }));
const limits = computed(() =>
  [
    { of: 'organs' as const, items: named(props.characters.map((c) => c.organ)) },
    { of: 'methods' as const, items: named(props.characters.map((c) => c.method)) },
    { of: 'preserved' as const, items: TREATMENTS.map((value) => ({ value, title: t(`apart.treated.${value}`) })) },
  ].filter((limit) => limit.items.length > 1),
);
const summary = computed(() =>
  [
    a.month.value ? t(`month.${a.month.value}`) : t('key.anyMonth'),
    t(`observer.${a.novice.value ? 'NOVICE' : 'TRAINED'}`),
    t(a.strikeOut.value ? 'school.strikeOut' : 'school.weigh'),
    ...limits.value.flatMap(({ of }) => (a.atHand.value[of].length ? [a.atHand.value[of].join(', ')] : [])),
  ].join(' · '),
);

function limit(of: 'organs' | 'methods' | 'preserved', values: string[] | null) {
  const next: ViewingConditions = { ...a.atHand.value, [of]: values ?? [] };
  void a.ask({ [of]: toQuery(next)[of] as string | undefined });
}
</script>

<template>
  <details class="settings no-print">
    <summary>
      <strong>{{ $t('ask.settings') }}</strong> <span class="quiet">{{ summary }}</span>
    </summary>
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
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 2.75rem;
  padding: 0.6rem 0;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 13rem), 1fr));
  gap: 0.75rem 1rem;
  align-items: center;
  padding-bottom: 0.75rem;
}
</style>
