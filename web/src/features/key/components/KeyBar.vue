<script setup lang="ts">
import { mdiDownload } from '@mdi/js';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { usePreferences } from '@/stores/preferences';
import type { Placed } from '../logic/questions';
import type { Wish } from '../logic/wish';

/** Which key is shown, what it is made best for, and what can be done with it. */
defineProps<{
  wish: Wish;
  /** Labels by the id of a character. */
  labelOf: (id: string) => string;
  named: Schemas['NamedKeyLine'][];
  kept?: number;
  /** Address of its files; empty while there is no key. */
  files: string;
  /** Questions that are set, and where they are asked. */
  questions: Placed[];
  /** Whether it is known where. */
  placed: boolean;
}>();
const emit = defineEmits<{
  objective: [objective: string];
  allow: [character: string];
  free: [place: number];
  open: [kept?: number];
}>();
const preferences = usePreferences();
const { t } = useI18n();
const NEW = 0;

const objectives = computed(() =>
  (['CAUTIOUS', 'FEWEST', 'RELATIVES', 'EQUIPMENT', 'BEGINNER'] as const).map((value) => ({
    value,
    title: t(`objective.${value}`),
  })),
);
</script>

<template>
  <div class="bar">
    <v-select
      v-if="named.length"
      :model-value="named.some((k) => k.id === kept) ? kept : NEW"
      :items="[{ value: NEW, title: t('namedKeys.notKept') }, ...named.map((k) => ({ value: k.id, title: k.name }))]"
      :label="$t('namedKeys.shown')"
      hide-details
      @update:model-value="emit('open', $event || undefined)"
    />
    <v-select
      :model-value="wish.objective"
      :items="objectives"
      :label="$t('key.objective')"
      hide-details
      @update:model-value="emit('objective', $event)"
    />
    <v-switch v-model="preferences.plain" :label="$t('plain')" hide-details density="compact" color="primary" />
    <v-spacer />
    <slot />
    <v-menu>
      <template #activator="{ props }">
        <v-btn v-bind="props" size="small" :disabled="!files" :prepend-icon="mdiDownload">{{ $t('key.save') }}</v-btn>
      </template>
      <v-list density="compact">
        <v-list-item
          v-for="format in ['html', 'text', 'markdown', 'json']"
          :key="format"
          :title="$t(`format.${format}`)"
          :href="`${files}?format=${format}&plain=${preferences.plain}`"
        />
      </v-list>
    </v-menu>
    <div v-if="wish.forbidden.length || questions.length" class="set">
      <v-chip v-for="id in wish.forbidden" :key="id" closable size="small" @click:close="emit('allow', id)">{{
        $t('key.without', { name: labelOf(id) })
      }}</v-chip>
      <v-chip
        v-for="(p, i) in questions"
        :key="p.question.character + p.question.rows.join()"
        closable
        size="small"
        @click:close="emit('free', i)"
        >{{
          $t(p.couplet ? 'key.set' : placed ? 'key.setInVain' : 'key.setSomewhere', {
            n: p.couplet,
            name: labelOf(p.question.character),
          })
        }}</v-chip
      >
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.9rem;
  padding: 0.7rem 1rem;
}

.set {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  flex-basis: 100%;
}

.bar .v-select {
  max-width: 15rem;
}
</style>
