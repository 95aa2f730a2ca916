<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import MonthBand from '@/shared/calendar/MonthBand.vue';
import type { ViewingConditions } from '@/shared/viewing/conditions';
import ViewingChoices from '@/shared/viewing/ViewingChoices.vue';
import ViewingShortcuts from '@/shared/viewing/ViewingShortcuts.vue';
import { taxonGroups } from '../logic/groups';
import { madeFor } from '../logic/madeFor';
import type { Wish } from '../logic/wish';

/** For what a key is made: what can be seen when it is used, and of which taxa. */
const conditions = defineModel<ViewingConditions>({ required: true });
const props = defineProps<{ wish: Wish; study: Schemas['StudyView'] }>();
const emit = defineEmits<{
  beginners: [];
  'update:taxa': [ids: string[]];
  'update:common': [sooner: boolean];
  'update:hazards': [first: boolean];
}>();
const { t } = useI18n();

/** Taxa by what they have in common. */
const groups = computed(() => taxonGroups(props.study.rows, t));
const taxonChoices = computed(() =>
  props.study.rows.filter((r) => !r.stage).map((r) => ({ value: r.id, title: r.label })),
);
</script>

<template>
  <details class="conditions">
    <summary>
      {{ $t('key.conditions') }}: <strong>{{ madeFor(wish, t) }}</strong>
    </summary>
    <ViewingShortcuts v-model="conditions" :study="study">
      <v-btn size="small" variant="text" @click="emit('beginners')">{{ $t('key.forBeginners') }}</v-btn>
    </ViewingShortcuts>
    <MonthBand
      :model-value="conditions.months"
      :label="$t('key.months')"
      :none="$t('key.anyMonth')"
      @update:model-value="conditions = { ...conditions, months: $event }"
    />
    <p class="quiet">{{ $t('key.monthsMean') }}</p>
    <div class="choices">
      <ViewingChoices v-model="conditions" :study="study" />
      <v-select
        v-if="groups.length"
        :model-value="null"
        :items="groups"
        :label="$t('key.taxaThatAre')"
        hide-details
        @update:model-value="(ids: string[] | null) => ids && emit('update:taxa', [...new Set([...wish.taxa, ...ids])])"
      />
      <v-autocomplete
        :model-value="wish.taxa"
        :items="taxonChoices"
        :label="$t('key.taxa')"
        multiple
        chips
        closable-chips
        clearable
        hide-details
        @update:model-value="emit('update:taxa', $event)"
      />
      <v-switch
        :model-value="!wish.evenWeights"
        :label="$t('key.commonSooner')"
        density="compact"
        color="primary"
        hide-details
        @update:model-value="emit('update:common', Boolean($event))"
      />
      <v-switch
        :model-value="wish.hazardsFirst"
        :label="$t('key.hazardsSooner')"
        :disabled="wish.objective === 'FEWEST'"
        density="compact"
        color="primary"
        hide-details
        @update:model-value="emit('update:hazards', Boolean($event))"
      />
    </div>
  </details>
</template>

<style scoped>
.conditions {
  padding: 0.35rem 1rem;
  border-top: 1px solid var(--rule);
}

summary {
  cursor: pointer;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
  margin: 0.6rem 0;
}

.choices :deep(.v-input) {
  min-width: 14rem;
  max-width: 24rem;
}
</style>
