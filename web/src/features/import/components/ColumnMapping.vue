<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';

/** The first rows of a table that nobody prepared, with what each column holds chosen above it. */
const mapping = defineModel<Schemas['SheetMapping']>({ required: true });
const props = defineProps<{ rows: string[][]; remembered: boolean }>();
const emit = defineEmits<{ turn: [transposed: boolean] }>();
const { t } = useI18n();
const OPTIONS = ['decimalComma', 'fillDown', 'transposed', 'footnotes'] as const;
const MEANINGS = ['NOTHING', 'DOUBT', 'NOTE'] as const;
type Role = Schemas['MappedColumn']['role'];
const GROUPS: Record<'matrix' | 'specimens', Role[]> = {
  matrix: [
    'TAXON',
    'CHARACTER',
    'PRESENCE',
    'SIZE',
    'STAGE',
    'RANK',
    'PARENT',
    'HAZARD',
    'AUTHORSHIP',
    'SYNONYM',
    'VERNACULAR',
    'STATUS',
    'COMMONNESS',
    'MONTHS_PRESENT',
    'SOURCE',
    'IGNORED',
  ],
  specimens: [
    'SPECIMEN',
    'QUALIFIER',
    'DETERMINED_BY',
    'DETERMINED_ON',
    'DETERMINED_WITH',
    'DATE',
    'PLACE',
    'COORDINATES',
    'UNCERTAINTY',
    'COLLECTOR',
    'HABITAT',
    'HOST',
    'SEX',
    'STORAGE',
    'NOTE',
  ],
};
const groups = Object.entries(GROUPS).map(([group, roles]) => ({
  title: t(`mapping.group.${group}`),
  roles: roles.map((value) => ({ value, title: t(`mapping.role.${value}`) })),
}));
const ofSpecimens = computed(() => mapping.value.columns.some((c) => c.role === 'SPECIMEN'));
const blanks = computed({
  get: () => mapping.value.blanks.join(' | '),
  set: (text: string) =>
    change({
      blanks: text
        .split('|')
        .map((s) => s.trim())
        .filter(Boolean),
    }),
});

function change(part: Partial<Schemas['SheetMapping']>) {
  mapping.value = { ...mapping.value, ...part };
}

/** A table that is turned is another table; everything else is a matter of reading this one. */
function opted(option: (typeof OPTIONS)[number], on: boolean) {
  if (option === 'transposed') emit('turn', on);
  else change({ [option]: on });
}

function column(index: number, part: Partial<Schemas['MappedColumn']>) {
  change({ columns: mapping.value.columns.map((c, i) => (i === index ? { ...c, ...part } : c)) });
}

type Meaning = (typeof MEANINGS)[number];
const nameOf = (mark: Schemas['MarkMeaning']) =>
  mark.mark === 'struck' ? t('mapping.struck') : t('mapping.colour', { colour: `#${mark.mark}` });

function meant(index: number, part: Partial<Schemas['MarkMeaning']>) {
  change({ marks: mapping.value.marks.map((m, i) => (i === index ? { ...m, ...part } : m)) });
}

/** What a row of the table is taken for. */
function kind(row: number): 'title' | 'heading' | 'data' {
  if (row < mapping.value.titleRows) return 'title';
  return row < mapping.value.titleRows + mapping.value.headingRows ? 'heading' : 'data';
}

const whole = (text: unknown) => Math.max(0, Math.min(props.rows.length, Math.round(Number(text) || 0)));
</script>

<template>
  <section aria-labelledby="mapping">
    <h2 id="mapping">{{ $t('mapping.title') }}</h2>
    <p>{{ remembered ? $t('mapping.remembered') : $t('mapping.lead') }}</p>
    <p v-if="ofSpecimens" role="status">{{ $t('mapping.specimens') }}</p>
    <div class="options">
      <v-text-field
        :model-value="mapping.titleRows"
        type="number"
        min="0"
        :label="$t('mapping.titleRows')"
        density="compact"
        hide-details
        @update:model-value="change({ titleRows: whole($event) })"
      />
      <v-text-field
        :model-value="mapping.headingRows"
        type="number"
        min="0"
        :label="$t('mapping.headingRows')"
        density="compact"
        hide-details
        @update:model-value="change({ headingRows: whole($event) })"
      />
      <v-text-field v-model="blanks" :label="$t('mapping.blanks')" density="compact" hide-details />
      <v-checkbox
        v-for="option in OPTIONS"
        :key="option"
        :model-value="mapping[option]"
        :label="$t(`mapping.${option}`)"
        density="compact"
        hide-details
        @update:model-value="opted(option, Boolean($event))"
      />
    </div>
    <fieldset v-if="mapping.marks.length" class="marks">
      <legend>{{ $t('mapping.marks') }}</legend>
      <div v-for="(mark, i) in mapping.marks" :key="mark.mark">
        <span v-if="mark.mark === 'struck'"
          ><s>{{ $t('mapping.struck') }}</s></span
        >
        <span v-else><i class="swatch" :style="{ background: `#${mark.mark}` }" />{{ nameOf(mark) }}</span>
        <select
          :value="mark.meaning"
          :aria-label="$t('mapping.meaningOf', { mark: nameOf(mark) })"
          @change="meant(i, { meaning: ($event.target as HTMLSelectElement).value as Meaning })"
        >
          <option v-for="meaning in MEANINGS" :key="meaning" :value="meaning">
            {{ $t(`mapping.meaning.${meaning}`) }}
          </option>
        </select>
        <input
          v-if="mark.meaning !== 'NOTHING'"
          :value="mark.note"
          :placeholder="$t('mapping.legend')"
          :aria-label="`${$t('mapping.legend')}: ${nameOf(mark)}`"
          @change="meant(i, { note: ($event.target as HTMLInputElement).value })"
        />
      </div>
    </fieldset>
    <div class="scroll" tabindex="0" role="region" :aria-label="$t('mapping.title')">
      <table>
        <thead>
          <tr>
            <th v-for="(one, c) in mapping.columns" :key="c" :class="{ out: one.role === 'IGNORED' }">
              <label>
                <span class="sr-only">{{ $t('mapping.holds', { n: c + 1 }) }}</span>
                <select
                  :value="one.role"
                  @change="column(c, { role: ($event.target as HTMLSelectElement).value as Role })"
                >
                  <optgroup v-for="group in groups" :key="group.title" :label="group.title">
                    <option v-for="role in group.roles" :key="role.value" :value="role.value">{{ role.title }}</option>
                  </optgroup>
                </select>
              </label>
              <template v-if="['CHARACTER', 'PRESENCE', 'SIZE'].includes(one.role)">
                <input
                  :value="one.label"
                  :aria-label="$t('mapping.label', { n: c + 1 })"
                  :placeholder="$t('character.label')"
                  @change="column(c, { label: ($event.target as HTMLInputElement).value })"
                />
                <span class="two">
                  <input
                    :value="one.organ"
                    :aria-label="$t('mapping.organ', { n: c + 1 })"
                    :placeholder="$t('character.organ')"
                    @change="column(c, { organ: ($event.target as HTMLInputElement).value })"
                  />
                  <input
                    :value="one.unit"
                    :aria-label="$t('mapping.unit', { n: c + 1 })"
                    :placeholder="$t('character.unit')"
                    @change="column(c, { unit: ($event.target as HTMLInputElement).value })"
                  />
                </span>
              </template>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, r) in rows" :key="r" :class="kind(r)">
            <td v-for="(one, c) in mapping.columns" :key="c" :class="{ out: one.role === 'IGNORED' }">{{ row[c] }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.options {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.6rem 1rem;
  margin: 0.6rem 0;
}

.marks {
  margin: 0 0 0.75rem;
  padding: 0.25rem 0.75rem;
  border: 1px solid var(--rule);
}

.marks > div {
  display: flex;
  gap: 0.75rem;
  align-items: center;
  padding: 0.15rem 0;
}

.marks span {
  min-width: 9rem;
}

.marks select,
.marks input {
  padding: 0.2rem 0.3rem;
  border: 1px solid var(--rule);
  color: inherit;
}

.swatch {
  display: inline-block;
  width: 0.9rem;
  height: 0.9rem;
  margin-right: 0.4rem;
  border: 1px solid var(--rule);
  vertical-align: -0.1rem;
}

.scroll {
  overflow: auto;
  max-height: 24rem;
  border: 1px solid var(--rule);
}

table {
  border-collapse: collapse;
  font-size: 0.9rem;
}

th {
  position: sticky;
  top: 0;
  vertical-align: top;
  min-width: 9.5rem;
  padding: 0.4rem;
  background: rgb(var(--v-theme-surface));
  border-bottom: 2px solid rgb(var(--v-theme-primary));
}

th select {
  text-overflow: ellipsis;
}

th select,
th input {
  width: 100%;
  margin-bottom: 0.25rem;
  padding: 0.25rem 0.3rem;
  border: 1px solid var(--rule);
  background: rgb(var(--v-theme-background));
  color: inherit;
}

.two {
  display: grid;
  grid-template-columns: 1fr 3.4rem;
  gap: 0.25rem;
}

td {
  padding: 0.25rem 0.4rem;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
  max-width: 16rem;
  overflow: hidden;
  text-overflow: ellipsis;
}

.title td {
  max-width: 9rem;
  font-style: italic;
  color: var(--faint);
}

.heading td {
  font-weight: 600;
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 10%, transparent);
}

.out {
  color: var(--faint);
  background: repeating-linear-gradient(135deg, transparent 0 6px, var(--rule) 6px 7px);
}
</style>
