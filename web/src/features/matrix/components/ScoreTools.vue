<script setup lang="ts">
import { mdiFindReplace, mdiPin, mdiPinOutline, mdiTableColumn, mdiTableRow, mdiViewGridOutline } from '@mdi/js';
import type { Schemas } from '@/api/client';
import { useI18n } from 'vue-i18n';
import type { Sorting } from '../logic/order';
import { toggled } from '@/shared/ui/toggled';
import { FILTERS, type Filter } from '../logic/view';

/** How the matrix is looked at: as a sheet, by character or by row; what of it; in which order. */
const mode = defineModel<string>('mode', { required: true });
const filter = defineModel<Filter>('filter', { required: true });
const grouped = defineModel<boolean>('grouped', { required: true });
const hidden = defineModel<Set<string>>('hidden', { required: true });
const frozen = defineModel<Set<string>>('frozen', { required: true });
const sorting = defineModel<Sorting | null>('sorting', { required: true });
const like = defineModel<{ character: string; text: string } | null>('like', { required: true });
const props = defineProps<{ characters: Schemas['StudyCharacter'][]; editable: boolean }>();
const emit = defineEmits<{ find: [] }>();
const { t } = useI18n();
const MODES = [
  { value: 'sheet', icon: mdiViewGridOutline },
  { value: 'character', icon: mdiTableColumn },
  { value: 'row', icon: mdiTableRow },
];
const filters = FILTERS.map((value) => ({ value, title: t(`score.filter.${value}`) }));

const labelOf = (id: string) => props.characters.find((c) => c.id === id)?.label ?? id;
</script>

<template>
  <div class="tools" role="toolbar" :aria-label="$t('score.tools')">
    <v-btn-toggle v-model="mode" mandatory density="compact" variant="outlined" divided>
      <v-btn v-for="m in MODES" :key="m.value" :value="m.value" :prepend-icon="m.icon" size="small">
        {{ $t(`score.mode.${m.value}`) }}
      </v-btn>
    </v-btn-toggle>
    <v-select v-model="filter" class="filter" :items="filters" :label="$t('score.show')" hide-details />
    <v-menu :close-on-content-click="false">
      <template #activator="{ props: activator }">
        <v-btn v-bind="activator" size="small" variant="text">
          {{ hidden.size ? $t('score.hiddenColumns', { n: hidden.size }) : $t('score.columns') }}
        </v-btn>
      </template>
      <v-list density="compact" max-height="24rem">
        <v-list-item>
          <v-checkbox v-model="grouped" :label="$t('score.byOrgan')" density="compact" hide-details />
        </v-list-item>
        <v-divider />
        <v-list-item v-for="character in characters" :key="character.id">
          <v-checkbox
            :model-value="!hidden.has(character.id)"
            :label="character.label"
            density="compact"
            hide-details
            @update:model-value="hidden = toggled(hidden, character.id)"
          />
          <template #append>
            <v-btn
              :icon="frozen.has(character.id) ? mdiPin : mdiPinOutline"
              size="x-small"
              variant="text"
              :aria-label="$t('score.freeze', { name: character.label })"
              :aria-pressed="frozen.has(character.id)"
              @click="frozen = toggled(frozen, character.id)"
            />
          </template>
        </v-list-item>
      </v-list>
    </v-menu>
    <v-chip v-if="sorting" size="small" closable :close-label="$t('score.studyOrder')" @click:close="sorting = null">{{
      $t(sorting.down ? 'score.sortedDown' : 'score.sortedUp', { name: labelOf(sorting.character) })
    }}</v-chip>
    <v-chip v-if="like" size="small" closable :close-label="$t('score.allRows')" @click:close="like = null">{{
      $t('score.like', { name: labelOf(like.character), text: like.text || $t('score.emptyCell') })
    }}</v-chip>
    <v-spacer />
    <v-btn v-if="editable" size="small" variant="text" :prepend-icon="mdiFindReplace" @click="emit('find')">
      {{ $t('score.find.open') }}
    </v-btn>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.9rem;
  align-items: center;
  padding: 0.6rem 0.8rem 0.4rem;
  border-bottom: 1px solid var(--rule);
}

.filter {
  max-width: 15rem;
}

/* One line that scrolls sideways, so that the sheet has the room. */
@media (max-width: 800px), (max-height: 560px) {
  .tools {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-block: 0.4rem 0.15rem;
  }

  .tools > * {
    flex: none;
  }
}
</style>
