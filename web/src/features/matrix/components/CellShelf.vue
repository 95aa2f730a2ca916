<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';
import StatePicture from '@/shared/picture/StatePicture.vue';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import type { Comments } from '../composables/useComments';
import CellComments from './CellComments.vue';
import OriginForm from './OriginForm.vue';

/** Details and evidence of the selected cell. */
const props = defineProps<{
  slug: string;
  row: Schemas['StudyRow'];
  character: Schemas['StudyCharacter'];
  cell: Cell | undefined;
  from: Schemas['StudyRow'] | undefined;
  references: Schemas['Reference'][];
  specimens: Schemas['Specimen'][];
  findings: string[];
  comments: Comments;
  editable: boolean;
  /** Whether question and states stand beside it already. */
  brief?: boolean;
}>();
const emit = defineEmits<{ pick: [text: string]; origin: [origin: Schemas['Origin']] }>();
const { t } = useI18n();
const source = computed(
  () => props.references.find((r) => r.id === props.cell?.source)?.citation ?? props.cell?.source ?? '',
);
const evidence = computed(() => props.specimens.filter((s) => props.cell?.sample.specimens.includes(s.id)));
/** "240 items, 12 individuals, mean 5 um, SD 0.28 um, provisional". */
const measured = computed(() => {
  const cell = props.cell;
  if (!cell || cell.kind !== 'range') return '';
  const { provisional, ...sample } = cell.sample;
  const said = (['items', 'individuals', 'collections', 'mean', 'sd'] as const).flatMap((name) =>
    sample[name] === undefined
      ? []
      : [t(`sample.say.${name}`, { n: sample[name], unit: props.character.unit }, sample[name] ?? 0)],
  );
  return [...said, ...(provisional ? [t('sample.say.provisional')] : [])].join(', ');
});
const history = useQuery({
  queryKey: computed(() => ['history', props.slug, props.row.id, props.character.id, props.cell?.revision]),
  queryFn: () =>
    api.get('/api/v1/studies/{slug}/history', {
      slug: props.slug,
      row: props.row.id,
      character: props.character.id,
    }),
});
</script>

<template>
  <aside :aria-label="$t('shelf.title')">
    <h3><TaxonName :label="row.label" :stage="row.stage" /></h3>
    <p><HazardMark :hazard="row.hazard" full /></p>
    <h4>{{ character.label }}</h4>
    <p v-if="!brief">{{ character.question }}</p>
    <p v-if="character.note && !brief" class="quiet">{{ character.note }}</p>
    <p class="value figures">{{ cell ? cell.text || $t('score.emptyCell') : $t('loading') }}</p>
    <p v-if="cell?.from && from" class="quiet">{{ $t('shelf.inherited', { name: from.label }) }}</p>
    <p v-if="cell?.doubtful" class="doubt">{{ $t('shelf.doubtful') }}</p>
    <p v-if="cell?.basis" class="quiet">
      {{ $t(`basis.${cell.basis}`) }}{{ source ? ': ' + source : '' }}
      <template v-if="cell.scorer"> · {{ cell.scorer }} {{ cell.date }}</template>
    </p>
    <p v-if="evidence.length" class="quiet">
      {{ $t('origin.specimens') }}:
      <template v-for="(specimen, i) in evidence" :key="specimen.id"
        >{{ i ? ', ' : ''
        }}<router-link :to="`/studies/${slug}/gather?specimen=${specimen.id}`">{{
          specimen.code
        }}</router-link></template
      >
    </p>
    <p v-if="measured" class="quiet figures">{{ measured }}</p>
    <p v-if="cell?.note">{{ cell.note }}</p>
    <ul v-if="findings.length" class="findings">
      <li v-for="reason in findings" :key="reason">{{ reason }}</li>
    </ul>
    <details v-if="cell && cell.basis && !cell.from && editable" class="origin">
      <summary>{{ $t('origin.title') }}</summary>
      <OriginForm
        :key="`${row.id}/${character.id}`"
        :cell="cell"
        :references="references"
        :specimens="specimens"
        :unit="character.unit"
        @save="emit('origin', $event)"
      />
    </details>
    <template v-if="character.states.length && !brief">
      <h4>{{ $t('shelf.states') }}</h4>
      <ul>
        <li v-for="state in character.states" :key="state.id">
          <StatePicture :id="state.picture" decorative />
          <span>
            <button v-if="editable" type="button" @click="emit('pick', state.label)">{{ state.label }}</button>
            <span v-else>{{ state.label }}</span>
            <span v-if="state.definition" class="quiet">&nbsp;{{ state.definition }}</span>
          </span>
        </li>
      </ul>
    </template>
    <CellComments :comments="comments" :row="row.id" :character="character.id" :editable="editable" />
    <template v-if="history.data.value?.length">
      <h4>{{ $t('shelf.history') }}</h4>
      <ol class="history figures">
        <li v-for="change in history.data.value" :key="change.at">
          {{ $t(`change.${change.kind}`) }} · {{ change.who }} · {{ change.at.slice(0, 16).replace('T', ' ') }}
        </li>
      </ol>
    </template>
    <h4>{{ $t('shelf.notation') }}</h4>
    <p class="quiet notation">{{ $t(character.states.length ? 'shelf.notationStates' : 'shelf.notationNumbers') }}</p>
  </aside>
</template>

<style scoped>
aside {
  border-left: 1px solid var(--rule);
  padding: 1rem;
  overflow: auto;
}

ul li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  margin-bottom: 0.3rem;
}

ul img {
  flex: none;
  width: 4rem;
  height: 3rem;
}

h4 {
  margin: 1rem 0 0.2rem;
}

.value {
  font-family: var(--serif);
  font-size: 1.25rem;
  margin: 0.5rem 0;
}

.findings {
  border-left: 3px solid rgb(var(--v-theme-warning));
  padding-left: 0.7rem;
  margin: 0.6rem 0;
}

summary {
  cursor: pointer;
  font-weight: 600;
}

.doubt {
  color: rgb(var(--v-theme-error));
}

ul,
ol {
  padding-left: 0;
  list-style: none;
}

button {
  color: rgb(var(--v-theme-primary));
  font-weight: 600;
  padding: 0.15rem 0;
}

.history {
  font-size: 0.88rem;
}

.notation {
  font-size: 0.9rem;
  white-space: pre-line;
}
</style>
