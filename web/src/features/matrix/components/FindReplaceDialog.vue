<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Finds scores by what they mean; what is to become of them is shown before it is done. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  characters: Schemas['StudyCharacter'][];
  references: Schemas['Reference'][];
  character: string;
  rows: string[];
}>();
const emit = defineEmits<{ show: [operation: Schemas['ReplaceScores']] }>();
const { t } = useI18n();
const blank = () => ({
  character: props.character as string | null,
  selected: false,
  saying: '',
  contains: false,
  doubt: 'either',
  withoutSource: false,
  replacement: '',
  become: 'same',
  source: null as string | null,
});
const wish = ref(blank());

// What is typed while the dialog still opens must stay.
watch(open, (now) => now && (wish.value = blank()), { flush: 'sync' });

const items = computed(() => props.characters.map((c) => ({ value: c.id, title: c.label })));
const doubts = ['either', 'doubtful', 'sure'].map((value) => ({ value, title: t(`score.find.${value}`) }));
const becomes = ['same', 'doubtful', 'sure'].map((value) => ({ value, title: t(`score.find.become.${value}`) }));
const changes = computed(
  () => wish.value.replacement.trim() !== '' || wish.value.become !== 'same' || wish.value.source !== null,
);

function show() {
  const w = wish.value;
  emit('show', {
    operation: 'ReplaceScores',
    rows: w.selected ? props.rows : [],
    characters: w.character ? [w.character] : [],
    saying: w.saying.trim(),
    contains: w.contains,
    doubtful: w.doubt === 'either' ? undefined : w.doubt === 'doubtful',
    withoutSource: w.withoutSource,
    replacement: w.replacement.trim(),
    becomeDoubtful: w.become === 'same' ? undefined : w.become === 'doubtful',
    source: w.source ?? undefined,
  });
}
</script>

<template>
  <ModalDialog v-model="open" max-width="36rem" :aria-label="$t('score.find.title')">
    <v-card>
      <v-card-title>{{ $t('score.find.title') }}</v-card-title>
      <v-card-text>
        <form class="fields" @submit.prevent="show">
          <v-select
            v-model="wish.character"
            :items="items"
            :label="$t('score.find.character')"
            clearable
            hide-details
          />
          <v-checkbox
            v-model="wish.selected"
            :label="$t('score.find.selected', { n: rows.length }, rows.length)"
            density="compact"
            hide-details
          />
          <v-text-field v-model="wish.saying" :label="$t('score.find.saying')" autofocus hide-details />
          <v-checkbox v-model="wish.contains" :label="$t('score.find.contains')" density="compact" hide-details />
          <v-select v-model="wish.doubt" :items="doubts" :label="$t('score.find.doubt')" hide-details />
          <v-checkbox v-model="wish.withoutSource" :label="$t('score.find.unsourced')" density="compact" hide-details />
          <v-divider />
          <v-text-field v-model="wish.replacement" :label="$t('score.find.replacement')" hide-details />
          <v-select v-model="wish.become" :items="becomes" :label="$t('score.find.becomes')" hide-details />
          <v-combobox
            :items="references.map((r) => r.id)"
            :label="$t('score.find.source')"
            density="compact"
            variant="outlined"
            hide-details
            :model-value="wish.source"
            @update:model-value="wish.source = $event || null"
          />
          <div class="shelf-buttons">
            <v-btn type="submit" color="primary" variant="flat" :disabled="!changes">{{ $t('difference.show') }}</v-btn>
            <v-btn variant="text" @click="open = false">{{ $t('leave') }}</v-btn>
          </div>
        </form>
      </v-card-text>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 0.6rem;
}
</style>
