<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { rowName } from '@/shared/taxon/rowNames';
import { toggled } from '@/shared/ui/toggled';
import AskDialog from '@/shared/ui/AskDialog.vue';

/** How dangerous several taxa are, by one source. Nobody is chosen beforehand: each is a decision. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ rows: Schemas['StudyRow'][] }>();
const emit = defineEmits<{ show: [operation: Schemas['AssessHazards']] }>();
const HAZARDS = ['NONE_KNOWN', 'CAUTION', 'SERIOUS', 'LIFE_THREATENING'] as const;
const { t } = useI18n();
const hazards = HAZARDS.map((value) => ({ value, title: t(`hazard.${value}`) }));
const hazard = ref<(typeof HAZARDS)[number] | null>(null);
const source = ref('');
const chosen = ref(new Set<string>());
const waiting = computed(() => props.rows.filter((r) => r.hazard === 'NOT_ASSESSED'));
watch(open, () => (chosen.value = new Set()));

function show() {
  if (!hazard.value) return;
  emit('show', {
    operation: 'AssessHazards',
    rows: [...chosen.value],
    hazard: hazard.value,
    source: source.value.trim(),
  });
  open.value = false;
}
</script>

<template>
  <AskDialog
    v-model="open"
    width="38rem"
    :title="$t('assess.title')"
    :text="$t('assess.lead')"
    :yes="$t('several.show')"
    :disabled="!chosen.size || !hazard || !source.trim()"
    @give="show"
  >
    <fieldset>
      <legend>{{ $t('assess.chosen', { n: chosen.size, all: waiting.length }) }}</legend>
      <label v-for="row in waiting" :key="row.id">
        <input type="checkbox" :checked="chosen.has(row.id)" @change="chosen = toggled(chosen, row.id)" />
        {{ rowName(row) }}
      </label>
    </fieldset>
    <v-select v-model="hazard" :items="hazards" :label="$t('assess.hazard')" hide-details />
    <v-text-field v-model="source" :label="$t('assess.source')" maxlength="400" hide-details />
    <template #more>
      <v-btn variant="text" @click="chosen = new Set(waiting.map((r) => r.id))">{{ $t('assess.all') }}</v-btn>
    </template>
  </AskDialog>
</template>

<style scoped>
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(14rem, 1fr));
  max-height: 16rem;
  overflow: auto;
  padding: 0.4rem 0.7rem;
  border: 1px solid var(--rule);
}

label {
  display: flex;
  gap: 0.5rem;
  padding: 0.15rem 0;
}
</style>
