<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

export interface SplitItem {
  id: string;
  label: string;
}

/** Asks for the parts that something is split into, and which of its scores goes to which part. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  title: string;
  into: string;
  hint: string;
  first: string;
  items: SplitItem[];
  /** Things that go to one part only. */
  single?: SplitItem[];
  singleHint?: string;
}>();
const emit = defineEmits<{
  show: [into: string[], assigned: Record<string, string[]>, single: Record<string, string>];
}>();
/** One a line. */
const names = ref('');
const assigned = ref<Record<string, string[]>>({});
const alone = ref<Record<string, string | null>>({});
const parts = computed(() =>
  names.value
    .split('\n')
    .map((n) => n.trim())
    .filter(Boolean),
);

watch(
  open,
  () => {
    names.value = `${props.first}\n`;
    assigned.value = {};
    alone.value = {};
  },
  { immediate: true },
);

function show() {
  const single = Object.entries(alone.value).flatMap(([id, to]) => (to ? [[id, to]] : []));
  emit(
    'show',
    parts.value,
    Object.fromEntries(Object.entries(assigned.value).filter(([, to]) => to.length)),
    Object.fromEntries(single),
  );
}
</script>

<template>
  <ModalDialog v-model="open" max-width="38rem" scrollable :aria-label="title">
    <v-card>
      <v-card-title>{{ title }}</v-card-title>
      <v-card-text>
        <form id="split" @submit.prevent="show">
          <v-textarea v-model="names" :label="into" rows="2" auto-grow autofocus hide-details />
          <p v-if="items.length" class="quiet">{{ hint }}</p>
          <v-select
            v-for="item in items"
            :key="item.id"
            v-model="assigned[item.id]"
            :items="parts"
            :label="item.label"
            multiple
            clearable
            hide-details
          />
          <p v-if="single?.length" class="quiet">{{ singleHint }}</p>
          <v-select
            v-for="item in single ?? []"
            :key="item.id"
            v-model="alone[item.id]"
            :items="parts"
            :label="item.label"
            clearable
            hide-details
          />
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="open = false">{{ $t('leave') }}</v-btn>
        <v-btn type="submit" form="split" color="primary" variant="flat" :disabled="parts.length < 2">{{
          $t('difference.show')
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.7rem;
}
</style>
