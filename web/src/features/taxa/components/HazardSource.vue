<script setup lang="ts">
import { computed } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';

/** Where an assessment comes from; what a lower severity needs: a reason, a source, and a second person. */
const row = defineModel<Schemas['StudyRow']>({ required: true });
const props = defineProps<{ before: Schemas['StudyRow'] | undefined; readonly: boolean }>();
const model = useStudy();
const { busy, problem, run } = useAction();
const ORDER = ['NOT_ASSESSED', 'NONE_KNOWN', 'CAUTION', 'SERIOUS', 'LIFE_THREATENING'];
const rank = (hazard: string | undefined) => ORDER.indexOf(hazard ?? 'NOT_ASSESSED');
const worst = computed(() => {
  const recorded = row.value.hazards.map((h) => rank(h.severity));
  return Math.max(rank(row.value.hazard), ...recorded);
});
const pending = computed(() => props.before?.assessment.lowering);
const lowers = computed(() => {
  const before = props.before;
  return before !== undefined && rank(before.hazard) >= rank('CAUTION') && worst.value < rank(before.hazard);
});
/** What it counts as, where that is worse than what is recorded of it. */
const standing = computed(() => {
  const now = model.study.value?.rows.find((r) => r.id === row.value.id)?.hazard;
  return pending.value || rank(now) <= worst.value ? undefined : now;
});
const told = computed(() => row.value.assessment.lowering);

function tell(field: 'reason' | 'source', text: string) {
  const before = props.before;
  if (!before) return;
  const lowering = told.value ?? { hazard: before.hazard, hazards: before.hazards, reason: '', source: '', by: '' };
  row.value.assessment = { ...row.value.assessment, lowering: { ...lowering, [field]: text } };
}

function confirm() {
  return run(async () => {
    const baseRevision = model.study.value?.revisions[`row/${row.value.id}`] ?? 0;
    const at = { slug: model.slug, id: row.value.id, baseRevision };
    await api.post('/api/v1/studies/{slug}/rows/{id}/hazard-confirmation', at);
    await model.reload();
  });
}
</script>

<template>
  <div class="source">
    <p v-if="standing" class="warn">{{ $t('lowering.stands', { severity: $t(`hazard.${standing}`) }) }}</p>
    <v-text-field
      v-model="row.assessment.source"
      :label="$t('lowering.assessed')"
      :readonly="readonly"
      density="compact"
      hide-details
    />
    <template v-if="lowers">
      <p class="warn">{{ $t('lowering.why', { severity: $t(`hazard.${before?.hazard}`) }) }}</p>
      <v-text-field
        :model-value="told?.reason ?? ''"
        :label="$t('lowering.reason')"
        density="compact"
        hide-details
        @update:model-value="tell('reason', $event)"
      />
      <v-text-field
        :model-value="told?.source ?? ''"
        :label="$t('lowering.source')"
        density="compact"
        hide-details
        @update:model-value="tell('source', $event)"
      />
    </template>
    <div v-else-if="pending" class="warn" role="status">
      {{
        $t('lowering.pending', {
          severity: $t(`hazard.${pending.hazard}`),
          by: pending.by,
          reason: pending.reason || $t('lowering.noReason'),
        })
      }}
      <v-btn v-if="!readonly" size="small" :loading="busy" @click="confirm">{{ $t('lowering.confirm') }}</v-btn>
      <ProblemNote :problem="problem" />
    </div>
  </div>
</template>

<style scoped>
.source {
  display: grid;
  gap: 0.6rem;
}

.warn {
  margin: 0;
  padding-left: 0.8rem;
  border-left: 3px solid rgb(var(--v-theme-error));
}
</style>
