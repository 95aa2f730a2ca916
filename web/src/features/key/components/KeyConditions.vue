<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import MonthBand from '@/shared/calendar/MonthBand.vue';
import type { ViewingConditions } from '@/shared/viewing/conditions';
import { magnificationsOf } from '@/shared/viewing/choices';
import ViewingChoices from '@/shared/viewing/ViewingChoices.vue';
import ViewingShortcuts from '@/shared/viewing/ViewingShortcuts.vue';
import { stopGroups, taxonGroups } from '../logic/groups';
import { madeFor } from '../logic/madeFor';
import { MOST_LEADS, READERS, type Wish } from '../logic/wish';

/** For what a key is made: what can be seen when it is used, and of which taxa. */
const conditions = defineModel<ViewingConditions>({ required: true });
const props = defineProps<{ wish: Wish; study: Schemas['StudyView'] }>();
const emit = defineEmits<{
  beginners: [];
  wish: [change: Partial<Wish>];
}>();
const { t } = useI18n();

/** Taxa by what they have in common. */
const groups = computed(() => taxonGroups(props.study.rows, t));
const stops = computed(() => stopGroups(props.study.rows));
/** What the characters of the study need; nothing where none says so. */
const magnifications = computed(() =>
  [0, ...magnificationsOf(props.study)].map((value) => ({
    value,
    title: value ? t('key.upToTimes', { n: value }) : t('key.asNeeded'),
  })),
);
/** Chosen groups at which no key stops, because only some of their taxa are dangerous. */
const goesOnIn = computed(() => stops.value.filter((g) => g.mixed && props.wish.groups.includes(g.value)));
const ranks = computed(() => [...new Set(stops.value.filter((g) => g.rank && !g.mixed).map((g) => g.rank))]);
const stopsOf = (rank: string) => stops.value.filter((g) => g.rank === rank && !g.mixed).map((g) => g.value);
const leads = Array.from({ length: MOST_LEADS - 1 }, (_, i) => i + 2).map((value) => ({
  value,
  title: value > 2 ? t('key.leadsOfCouplet', { n: value }) : t('key.twoLeads'),
}));
/** A select says nothing by null. */
const readers = [null, ...READERS].map((value) => ({ value, title: t(`key.readersAre.${value ?? 'ANY'}`) }));
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
      <ViewingChoices v-model="conditions" :study="study" stages />
      <v-select
        v-if="groups.length"
        :model-value="null"
        :items="groups"
        :label="$t('key.taxaThatAre')"
        hide-details
        @update:model-value="
          (ids: string[] | null) => ids && emit('wish', { taxa: [...new Set([...wish.taxa, ...ids])] })
        "
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
        @update:model-value="emit('wish', { taxa: $event })"
      />
      <v-autocomplete
        v-if="stops.length"
        :model-value="wish.groups"
        :items="stops"
        :label="$t('key.stopAt')"
        :item-props="(g) => ({ disabled: g.mixed, subtitle: g.mixed ? t('key.mixedGroup') : undefined })"
        multiple
        chips
        closable-chips
        clearable
        hide-details
        @update:model-value="emit('wish', { groups: $event })"
      />
      <v-btn
        v-for="rank in ranks"
        :key="rank"
        size="small"
        variant="text"
        @click="emit('wish', { groups: [...new Set([...wish.groups, ...stopsOf(rank)])] })"
        >{{ $t('key.eachRank', { rank }) }}</v-btn
      >
      <v-select
        v-if="magnifications.length > 1"
        :model-value="wish.magnification"
        :items="magnifications"
        :label="$t('key.magnification')"
        hide-details
        @update:model-value="emit('wish', { magnification: $event })"
      />
      <v-select
        :model-value="wish.leads"
        :items="leads"
        :label="$t('key.leads')"
        hide-details
        @update:model-value="emit('wish', { leads: $event })"
      />
      <v-select
        :model-value="wish.readers ?? null"
        :items="readers"
        :label="$t('key.readBy')"
        :disabled="wish.objective === 'FEWEST'"
        hide-details
        @update:model-value="emit('wish', { readers: $event ?? undefined })"
      />
      <v-switch
        :model-value="!wish.evenWeights"
        :label="$t('key.commonSooner')"
        density="compact"
        color="primary"
        hide-details
        @update:model-value="emit('wish', { evenWeights: !$event })"
      />
      <v-switch
        :model-value="wish.hazardsFirst"
        :label="$t('key.hazardsSooner')"
        :disabled="wish.objective === 'FEWEST'"
        density="compact"
        color="primary"
        hide-details
        @update:model-value="emit('wish', { hazardsFirst: Boolean($event) })"
      />
    </div>
  </details>
  <p v-if="goesOnIn.length" class="goes-on">
    {{ $t('key.goesOnIn', { names: goesOnIn.map((g) => g.title).join(', ') }) }}
  </p>
</template>

<style scoped>
.conditions {
  padding: 0.35rem 1rem;
  border-top: 1px solid var(--rule);
}

summary {
  cursor: pointer;
}

.goes-on {
  margin: 0;
  padding: 0.35rem 1rem;
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
