<script setup lang="ts">
import { mdiDeleteOutline, mdiPencilOutline } from '@mdi/js';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import AskDialog from '@/shared/ui/AskDialog.vue';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useNamedKeys } from '../composables/useNamedKeys';
import { madeFor } from '../logic/madeFor';
import { inPercent } from '../logic/share';

type Line = Schemas['NamedKeyLine'];

/** The keys that a study keeps, beside each other. */
const props = defineProps<{ named: Line[]; kept?: number; beside?: number; editable: boolean }>();
const emit = defineEmits<{ open: [id?: number]; beside: [id?: number] }>();
const keys = useNamedKeys();
const { t } = useI18n();
const { busy, problem, run } = useAction();
const renamed = ref<Line>();
const removed = ref<Line>();
const name = ref('');

function standing(line: Line) {
  if (line.standing.current) return t('namedKeys.upToDate');
  const changes = t('namedKeys.changes', { n: line.standing.changes }, line.standing.changes);
  return `${changes} ${t(line.standing.proven ? 'namedKeys.stillProven' : 'namedKeys.noLongerProven')}`;
}

function rename(line: Line) {
  name.value = line.name;
  problem.value = null;
  renamed.value = line;
}

async function give() {
  const line = renamed.value;
  if (line && (await run(() => keys.update(line.id, name.value, line.published)))) renamed.value = undefined;
}

async function remove() {
  const line = removed.value;
  if (!line || !(await run(() => keys.remove(line.id)))) return;
  if (props.kept === line.id) emit('open', undefined);
  else if (props.beside === line.id) emit('beside', undefined);
}
</script>

<template>
  <details class="keys figures">
    <summary>{{ $t('namedKeys.title', { n: named.length }, named.length) }}</summary>
    <p class="quiet">{{ $t('namedKeys.lead') }}</p>
    <ProblemNote v-if="!renamed" :problem="problem" />
    <div
      class="scroll"
      tabindex="0"
      role="region"
      :aria-label="$t('namedKeys.title', { n: named.length }, named.length)"
    >
      <table>
        <thead>
          <tr>
            <th scope="col">{{ $t('namedKeys.name') }}</th>
            <th scope="col" class="number">{{ $t('key.couplets') }}</th>
            <th scope="col" class="number">{{ $t('key.steps') }}</th>
            <th scope="col" class="number">{{ $t('key.most') }}</th>
            <th v-for="reader in ['trained', 'novice']" :key="reader" scope="col" class="number">
              {{ $t('namedKeys.wrongFor', { readers: $t(`key.readers.${reader}`) }) }}
            </th>
            <th scope="col">{{ $t('namedKeys.standing') }}</th>
            <th scope="col">{{ $t('namedKeys.published') }}</th>
            <th scope="col">
              <span class="sr-only">{{ $t('namedKeys.actions') }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in named" :key="line.id" :class="{ shown: line.id === kept }">
            <th scope="row">
              <button type="button" :aria-pressed="line.id === kept" @click="emit('open', line.id)">
                {{ line.name }}
              </button>
              <div class="quiet">{{ madeFor(line.request, t) }}</div>
            </th>
            <td class="number">{{ line.figures.couplets }}</td>
            <td class="number">{{ line.figures.expectedSteps.toFixed(2) }}</td>
            <td class="number">{{ line.figures.longestPath }}</td>
            <td v-for="reader in ['trained', 'novice'] as const" :key="reader" class="number">
              {{ line.figures[reader] ? inPercent(line.figures[reader]?.wrong ?? 0) : '' }} /
              {{ line.figures[reader] ? inPercent(line.figures[reader]?.dangerousWrong ?? 0) : '' }}
            </td>
            <td :class="{ old: !line.standing.current }">{{ standing(line) }}</td>
            <td>
              <v-checkbox-btn
                v-if="editable"
                :model-value="line.published"
                :disabled="busy"
                density="compact"
                :aria-label="$t('namedKeys.publish', { name: line.name })"
                @update:model-value="run(() => keys.update(line.id, line.name, $event))"
              />
              <template v-else>{{ $t(line.published ? 'namedKeys.yes' : 'namedKeys.no') }}</template>
            </td>
            <td class="actions">
              <v-btn
                size="small"
                variant="text"
                :aria-pressed="line.id === beside"
                @click="emit('beside', line.id === beside ? undefined : line.id)"
                >{{ $t(line.id === beside ? 'namedKeys.putAway' : 'namedKeys.beside') }}</v-btn
              >
              <template v-if="editable">
                <v-btn
                  size="small"
                  variant="text"
                  :icon="mdiPencilOutline"
                  :aria-label="$t('namedKeys.rename', { name: line.name })"
                  @click="rename(line)"
                />
                <v-btn
                  size="small"
                  variant="text"
                  :icon="mdiDeleteOutline"
                  :aria-label="$t('namedKeys.remove', { name: line.name })"
                  @click="removed = line"
                />
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <AskDialog
      :model-value="renamed !== undefined"
      :title="$t('namedKeys.rename', { name: renamed?.name ?? '' })"
      text=""
      :yes="$t('save')"
      :disabled="!name.trim()"
      :busy="busy"
      :problem="problem"
      @update:model-value="renamed = undefined"
      @give="give"
    >
      <v-text-field v-model="name" :label="$t('namedKeys.name')" maxlength="80" autofocus hide-details />
    </AskDialog>
    <ConfirmDialog
      :model-value="removed !== undefined"
      :title="$t('namedKeys.remove', { name: removed?.name ?? '' })"
      :text="$t('namedKeys.removing')"
      :yes="$t('namedKeys.removeIt')"
      @confirm="remove"
      @update:model-value="removed = undefined"
    />
  </details>
</template>

<style scoped>
.keys {
  padding: 0.35rem 1rem;
  border-bottom: 1px solid var(--rule);
}

summary {
  cursor: pointer;
}

.scroll {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
}

th,
td {
  padding: 0.25rem 0.9rem 0.25rem 0;
  text-align: left;
  vertical-align: top;
  font-weight: 400;
}

thead th {
  vertical-align: bottom;
}

tbody tr {
  border-top: 1px solid var(--rule);
}

.number {
  text-align: right;
}

.old {
  color: rgb(var(--v-theme-error));
}

.shown button {
  font-weight: 600;
}

th button {
  text-align: left;
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}

.actions {
  white-space: nowrap;
}
</style>
