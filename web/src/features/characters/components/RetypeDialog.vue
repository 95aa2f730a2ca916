<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import AskDialog from '@/shared/ui/AskDialog.vue';
import { TYPES, unitsOf, type Character } from '../logic/characters';

/** Another type for a character that is scored; what each score becomes is shown before anything is changed. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ character: Character }>();
const emit = defineEmits<{ show: [operation: Schemas['ChangeType']] }>();
const { t } = useI18n();
const type = ref<Character['type'] | null>(null);
const unit = ref('');
const types = computed(() =>
  TYPES.filter((value) => value !== props.character.type).map((value) => ({ value, title: t(`type.${value}`) })),
);
const units = computed(() => (type.value ? unitsOf(type.value) : []));
watch(type, () => (unit.value = units.value[0] ?? ''));

function show() {
  if (!type.value) return;
  emit('show', { operation: 'ChangeType', character: props.character.id, type: type.value, unit: unit.value });
  open.value = false;
}
</script>

<template>
  <AskDialog
    v-model="open"
    width="30rem"
    :title="$t('character.retypeTitle', { name: character.label })"
    :text="$t('character.retypeText')"
    :yes="$t('several.show')"
    :disabled="!type"
    @give="show"
  >
    <v-select v-model="type" :items="types" :label="$t('character.type')" hide-details />
    <v-select v-if="units.length" v-model="unit" :items="units" :label="$t('character.unitOfTexts')" hide-details />
  </AskDialog>
</template>
