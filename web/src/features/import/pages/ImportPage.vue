<script setup lang="ts">
import { computed } from 'vue';
import { asText } from '@/shared/ui/asText';
import { useRoute } from 'vue-router';
import { ChangeList } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import CharactersChosen from '../components/CharactersChosen.vue';
import ColumnMapping from '../components/ColumnMapping.vue';
import CorrectionsMade from '../components/CorrectionsMade.vue';
import CoveringsAsked from '../components/CoveringsAsked.vue';
import ImportAccount from '../components/ImportAccount.vue';
import ImportProblems from '../components/ImportProblems.vue';
import ImportProgress from '../components/ImportProgress.vue';
import ImportSource from '../components/ImportSource.vue';
import PreviewTable, { type Choice } from '../components/PreviewTable.vue';
import UnitsAsked from '../components/UnitsAsked.vue';
import UnreadCells from '../components/UnreadCells.vue';
import { useImport, type Correction } from '../composables/useImport';

const route = useRoute();
/** The study that the file is to join; empty: it becomes a new one. */
const into = computed(() => asText(route.query.into));
const { busy, problem, stage, progress, cancelled, decided, kept, sheet, changes, preview, ...upload } =
  useImport(into);
const { file, pasted, title, page, isTable } = upload;
const blocking = computed(() => preview.value?.problems.filter((p) => p.blocking) ?? []);
const notices = computed(() => preview.value?.problems.filter((p) => !p.blocking) ?? []);
const open = computed(() => preview.value?.columns.filter((c) => c.open) ?? []);

const retype = (label: string, choice: Choice) => upload.decide({ types: { ...decided.value.types, [label]: choice } });

const correct = (more: Correction[]) => upload.decide({ corrections: [...decided.value.corrections, ...more] });

const undo = (one: Correction) => upload.decide({ corrections: decided.value.corrections.filter((c) => c !== one) });
</script>

<template>
  <v-main>
    <div class="page">
      <p class="no-print">
        <router-link to="/studies">{{ $t('studies.title') }}</router-link>
      </p>
      <h1>{{ into ? $t('import.intoTitle') : $t('import.title') }}</h1>
      <p class="lead">{{ into ? $t('import.intoLead') : $t('import.lead') }}</p>
      <ImportSource
        v-model:pasted="pasted"
        :file="file"
        :busy="busy"
        @choose="upload.choose"
        @paste="upload.readPasted"
      />
      <ProblemNote :problem="problem" />
      <ImportProgress v-if="stage" :stage="stage" :progress="progress" @cancel="upload.cancel" />
      <p v-if="cancelled" role="status">
        {{ $t(cancelled === 'IMPORT' ? 'import.notImported' : 'import.notRead') }}
        <v-btn v-if="cancelled !== 'IMPORT'" size="small" variant="text" @click="upload.readAgain">{{
          $t('import.readAgain')
        }}</v-btn>
      </p>
      <p v-if="kept" role="status">
        {{ $t('import.kept') }}
        <v-btn size="small" variant="text" @click="upload.forget">{{ $t('import.forget') }}</v-btn>
      </p>
      <v-select
        v-if="preview && preview.sheets.length > 1"
        class="page-of"
        :model-value="page || null"
        :items="preview.sheets"
        :label="$t('import.sheet')"
        :placeholder="$t('import.firstSheet')"
        persistent-placeholder
        density="compact"
        hide-details
        @update:model-value="upload.turnTo"
      />
      <ColumnMapping
        v-if="sheet && decided.mapping"
        :model-value="decided.mapping"
        :rows="sheet.rows"
        :remembered="sheet.remembered"
        @update:model-value="upload.decide({ mapping: $event })"
        @turn="upload.turn"
      />
      <v-btn v-else-if="preview && isTable" size="small" variant="text" @click="upload.map()">{{
        $t('mapping.open')
      }}</v-btn>
      <template v-if="preview">
        <ImportProblems v-if="blocking.length" :problems="blocking" :to-choose="preview.selection?.read === 0" />
        <CharactersChosen
          v-if="preview.selection"
          :selection="preview.selection"
          :chosen="decided.characters"
          :busy="busy"
          @choose="upload.decide({ characters: $event })"
        />
        <UnitsAsked v-if="open.length" :columns="open" @choose="retype" />
        <UnreadCells
          v-if="preview.unread.length"
          :cells="preview.unread"
          :total="preview.unreadCount"
          :busy="busy"
          @correct="correct"
        />
        <CorrectionsMade v-if="decided.corrections.length" :corrections="decided.corrections" @undo="undo" />
        <section v-if="notices.length" aria-labelledby="notices">
          <h2 id="notices">{{ $t('import.notices') }}</h2>
          <ul>
            <li v-for="(p, i) in notices" :key="i">
              <span v-if="p.row" class="quiet figures"
                >{{ $t('import.place', { row: p.row, column: p.column }) }}: </span
              >{{ p.text }}
            </li>
          </ul>
        </section>
        <CoveringsAsked
          v-if="preview.coverings.length"
          :asked="preview.coverings"
          :answers="decided.coverings"
          @answer="upload.decide({ coverings: $event })"
        />
        <section aria-labelledby="understood">
          <h2 id="understood">{{ $t('import.understood') }}</h2>
          <p class="figures">
            {{ $t('import.counts', { rows: preview.rows, characters: preview.characters, scores: preview.scores })
            }}{{ preview.specimens ? $t('import.specimens', preview.specimens) : '' }}
          </p>
          <template v-if="into && changes">
            <ChangeList :changes="changes.changes" :total="changes.total" />
            <div class="make">
              <v-btn color="primary" variant="flat" :disabled="!changes.total" :loading="busy" @click="upload.join">{{
                $t('import.join')
              }}</v-btn>
            </div>
          </template>
          <div v-else-if="preview.usable" class="make">
            <v-text-field v-model="title" :label="$t('import.name')" hide-details />
            <v-btn color="primary" variant="flat" :disabled="!title.trim()" :loading="busy" @click="upload.create">{{
              $t('import.create')
            }}</v-btn>
          </div>
          <ImportAccount
            v-if="preview.account"
            :account="preview.account"
            :transposed="decided.mapping?.transposed ?? false"
          />
          <PreviewTable v-if="preview.columns.length" :columns="preview.columns" @retype="retype" />
        </section>
      </template>
    </div>
  </v-main>
</template>

<style scoped>
.lead {
  max-width: 46rem;
}

.page-of {
  max-width: 24rem;
}

section {
  border-top: 1px solid var(--rule);
  margin-top: 1.5rem;
  padding-top: 1rem;
}

.make {
  display: flex;
  gap: 1rem;
  align-items: center;
  max-width: 40rem;
  margin: 1rem 0;
}
</style>
