<script setup lang="ts">
import { mdiCamera, mdiRuler } from '@mdi/js';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import type { Schemas } from '@/api/client';
import { GatherTabs } from '@/features/specimens';
import { PictureUpload } from '@/features/pictures';
import { useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import { usePictures } from '@/shared/picture/pictures';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useSession } from '@/stores/session';
import BesideSize from '../components/BesideSize.vue';
import CameraDialog from '../components/CameraDialog.vue';
import PictureBench from '../components/PictureBench.vue';
import ReadingTableDialog from '../components/ReadingTableDialog.vue';
import ReadingTray from '../components/ReadingTray.vue';
import RowReadings from '../components/RowReadings.vue';
import ScaleForm from '../components/ScaleForm.vue';
import SpecimenName from '../components/SpecimenName.vue';
import SpecimenStrip from '../components/SpecimenStrip.vue';
import { useInstruments } from '../composables/useInstruments';
import { draftOf, useMeasured } from '../composables/useMeasured';
import { useScaling } from '../composables/useScaling';
import { isOfTwo, nextItem, partsFor, shapesFor, type BenchMark, type Shape } from '../logic/marks';
import type { Point } from '../logic/viewport';

const model = useStudy();
const route = useRoute();
const router = useRouter();
const session = useSession();
const { t } = useI18n();
const src = usePictures();
const study = model.study;

const inAddress = (name: string) =>
  computed({
    get: () => String(route.query[name] ?? ''),
    set: (value) => void router.replace({ query: { ...route.query, [name]: value || undefined } }),
  });
const specimenId = inAddress('specimen');
const characterId = inAddress('character');
const pictureId = inAddress('picture');
const readingId = inAddress('reading');

const editable = computed(() => ['SCORER', 'EDITOR', 'OWNER'].includes(study.value?.role ?? ''));
const mayScale = computed(() => ['EDITOR', 'OWNER'].includes(study.value?.role ?? ''));
const characters = computed(() => (study.value?.characters ?? []).filter((c) => c.type !== 'MONTHS'));
const character = computed(
  () =>
    characters.value.find((c) => c.id === characterId.value) ??
    characters.value.find((c) => c.type === 'LENGTH') ??
    characters.value[0],
);
const choices = computed(() =>
  characters.value.map((c) => ({
    value: c.id,
    title: c.label,
    props: { subtitle: [c.organ, c.unit || t(`type.${c.type}`)].filter(Boolean).join(' · ') },
  })),
);

const specimens = computed(() => study.value?.specimens ?? []);
const ofSpecimen = computed(() => (study.value?.pictures ?? []).filter((p) => p.specimen === specimenId.value));
/** Photographed ones first: these are what the bench is for. */
const ordered = computed(() => {
  const pictured = new Set((study.value?.pictures ?? []).map((p) => p.specimen).filter(Boolean));
  return [...specimens.value].sort((a, b) => Number(pictured.has(b.id)) - Number(pictured.has(a.id)));
});
const specimen = computed(() => specimens.value.find((s) => s.id === specimenId.value));
const picture = computed(() => ofSpecimen.value.find((p) => p.id === pictureId.value) ?? ofSpecimen.value[0]);
const row = computed(() => {
  const named = specimen.value?.determinations.at(-1)?.row;
  return study.value?.rows.find((r) => r.id === named);
});

watch(
  ordered,
  (all) => {
    if (!specimenId.value && all[0]) specimenId.value = all[0].id;
  },
  { immediate: true },
);

const {
  measured,
  ofSpecimen: read,
  problem,
  add,
  correct,
  remove,
} = useMeasured(
  () => character.value?.id ?? '',
  () => specimenId.value,
);

const kept = computed(() => read.value?.readings);
const speaksFor = computed(() => read.value?.row ?? '');
const items = computed(() =>
  (measured.value?.rows ?? []).flatMap((r) => r.items).filter((i) => i.specimen === specimenId.value),
);
const counts = computed(() => {
  const counts = new Map<string, number>();
  for (const r of measured.value?.rows ?? [])
    for (const i of r.items) counts.set(i.specimen, (counts.get(i.specimen) ?? 0) + 1);
  return counts;
});

function nameOf(of: Schemas['Specimen']): { label: string; stage: string } {
  const last = of.determinations.at(-1);
  const found = study.value?.rows.find((r) => r.id === last?.row);
  const label = found ? [last?.qualifier, found.label].filter(Boolean).join(' ') : '';
  return { label, stage: of.sex || of.stage || (found?.stage ?? '') };
}

const hazardOf = (of: Schemas['Specimen']) =>
  study.value?.rows.find((r) => r.id === of.determinations.at(-1)?.row)?.hazard ?? 'NONE_KNOWN';

/** What a reading that still waits is of. */
const entryName = (specimen: string, of: string) =>
  [specimens.value.find((s) => s.id === specimen)?.code, characters.value.find((c) => c.id === of)?.label]
    .filter(Boolean)
    .join(', ');

// --- marking --------------------------------------------------------------------

const bench = useTemplateRef<InstanceType<typeof PictureBench>>('bench');
const { busy, problem: markProblem, run } = useAction();
const item = ref('');
const shape = ref<Shape>('LINE');
/** What the reading at hand came to, for those who do not see it appear. */
const said = computed(() => {
  const reading = kept.value?.find((k) => k.reading.id === readingId.value)?.reading;
  return reading ? t('measure.saved', { typed: [reading.typed, reading.item].filter(Boolean).join(', ') }) : '';
});
const blind = ref(false);
const bringing = ref(false);
const { scaling, ends, begin, save: saveScale, said: scaleSaid } = useScaling(picture, run);

const shapes = computed(() => (character.value ? shapesFor(character.value.type) : []));
watch(
  shapes,
  (able) => {
    if (able[0] && !able.includes(shape.value)) shape.value = able[0];
  },
  { immediate: true },
);
watch([specimenId, () => character.value?.id], () => {
  item.value = '';
  readingId.value = '';
  markProblem.value = null;
});

const visible = computed(() =>
  (kept.value ?? []).filter((k) => !blind.value || k.reading.by === session.account?.displayName),
);

const marks = computed<BenchMark[]>(() => {
  const readings = visible.value.flatMap(({ reading }) => {
    const { mark } = reading;
    return mark && mark.picture === picture.value?.id && reading.character === character.value?.id
      ? [
          {
            id: reading.id,
            shape: mark.shape,
            parts: mark.parts,
            label: reading.item || reading.typed,
            movable: editable.value,
          },
        ]
      : [];
  });
  const { from, to, length } = picture.value?.scale ?? {};
  const bar = ends.value ?? (from && to ? ([from, to] as [Point, Point]) : null);
  return bar && (scaling.value || !readings.length)
    ? [...readings, { id: '', shape: 'LINE' as const, parts: [bar], label: length ?? '', movable: false }]
    : readings;
});

async function done(parts: Point[][]) {
  const of = character.value;
  const on = picture.value;
  const [from, to] = parts[0] ?? [];
  if (scaling.value) {
    if (from && to) ends.value = [from, to];
    return;
  }
  if (!of || !on) return;
  const taken = await run(async () => {
    const id = await add([
      {
        specimen: specimenId.value,
        character: of.id,
        item: item.value,
        mark: { picture: on.id, shape: shape.value, parts },
        instrument: t('measure.picture').toLowerCase(),
      },
    ]);
    readingId.value = id;
    item.value = nextItem(item.value);
  });
  if (!taken) bench.value?.restore(parts);
}

async function moved(id: string, parts: Point[][]) {
  const found = kept.value?.find((k) => k.reading.id === id);
  if (!found?.reading.mark) return;
  const mark = { ...found.reading.mark, parts };
  await run(() => correct(id, draftOf(found.reading, { mark }), found.revision));
}

function beginScale() {
  begin();
  void bench.value?.focus();
}

const instruments = useInstruments();
const camera = ref(false);
/** A simulated caliper measures things as large as those that were read. */
const caliper = computed(() => {
  if (character.value?.type !== 'LENGTH' || !instruments.value?.includes('caliper')) return undefined;
  const median = measured.value?.rows.find((r) => r.row === speaksFor.value)?.summary?.median;
  return median === undefined
    ? '/api/v1/instruments/caliper'
    : `/api/v1/instruments/caliper?around=${median}&unit=${encodeURIComponent(character.value.unit)}`;
});

const benchSrc = computed(() => src(picture.value?.id ?? '')?.src ?? '');
</script>

<template>
  <div class="measure">
    <header class="head">
      <h2 class="sr-only">{{ $t('measure.title') }}</h2>
      <GatherTabs :slug="model.slug" />
      <v-btn v-if="editable" size="small" variant="text" @click="bringing = true">{{ $t('measure.table.open') }}</v-btn>
      <v-btn
        v-if="mayScale && specimen"
        :icon="mdiCamera"
        size="x-small"
        variant="text"
        :aria-label="$t('measure.camera.open')"
        :title="$t('measure.camera.open')"
        @click="camera = true"
      />
      <v-spacer />
      <v-autocomplete
        v-if="character"
        class="which"
        :model-value="character.id"
        :items="choices"
        :label="$t('measure.character')"
        density="compact"
        hide-details
        @update:model-value="characterId = $event"
      />
    </header>
    <ReadingTableDialog v-model="bringing" />
    <CameraDialog
      v-if="specimen"
      v-model="camera"
      :specimen="specimen"
      :simulated="instruments?.includes('camera') ?? false"
      @added="pictureId = $event"
    />
    <p v-if="study && !specimens.length">{{ $t('measure.empty') }}</p>
    <p v-else-if="study && !character">{{ $t('measure.noCharacter') }}</p>
    <div v-else-if="study" class="areas">
      <SpecimenStrip
        :specimens="ordered"
        :pictures="study.pictures"
        :names="nameOf"
        :hazards="hazardOf"
        :counts="counts"
        :chosen="specimenId"
        @choose="specimenId = $event"
      />
      <main class="middle">
        <div v-if="specimen" class="tools">
          <strong class="figures">{{ specimen.code }}</strong>
          <SpecimenName v-bind="nameOf(specimen)" />
          <HazardMark v-if="row" :hazard="row.hazard" />
          <v-select
            v-if="ofSpecimen.length > 1"
            class="few"
            :model-value="picture?.id"
            :items="ofSpecimen.map((p) => ({ value: p.id, title: p.shows }))"
            :label="$t('measure.picture')"
            density="compact"
            hide-details
            @update:model-value="pictureId = $event"
          />
          <v-spacer />
          <template v-if="picture && editable">
            <v-btn-toggle
              v-if="shapes.length > 1 && !scaling"
              v-model="shape"
              density="compact"
              mandatory
              divided
              :aria-label="$t('measure.how')"
            >
              <v-btn v-for="s in shapes" :key="s" :value="s" size="small">{{ $t(`measure.shape.${s}`) }}</v-btn>
            </v-btn-toggle>
            <v-btn
              v-if="mayScale"
              size="small"
              :prepend-icon="mdiRuler"
              :color="picture.scale ? undefined : 'primary'"
              :variant="picture.scale ? 'outlined' : 'flat'"
              @click="beginScale"
              >{{ picture.scale ? scaleSaid : $t('measure.scale.set') }}</v-btn
            >
            <span v-else class="quiet">{{ scaleSaid }}</span>
          </template>
        </div>
        <ScaleForm
          v-if="scaling && picture"
          :picture="picture"
          :pictures="study.pictures"
          :ends="ends"
          :busy="busy"
          :problem="markProblem"
          @save="saveScale"
          @close="scaling = false"
        />
        <ProblemNote v-else :problem="markProblem" />
        <PictureBench
          v-if="picture && benchSrc"
          ref="bench"
          class="picture"
          :src="benchSrc"
          :small="src(picture.id)?.small ?? ''"
          :width="picture.width"
          :height="picture.height"
          :shape="!editable ? undefined : scaling ? 'LINE' : shapes.length ? shape : undefined"
          :parts="scaling || !character ? 1 : partsFor(character.type, shape)"
          :marks="marks"
          :chosen="readingId"
          @done="done"
          @moved="moved"
        />
        <template v-else-if="specimen">
          <p>{{ $t('measure.noPicture') }}</p>
          <PictureUpload
            v-if="mayScale"
            :key="specimen.id"
            :shows="$t('measure.shows', { code: specimen.code })"
            :specimen="specimen.id"
            @added="pictureId = $event"
          />
        </template>
        <p v-else>{{ $t('measure.noSpecimen') }}</p>
        <p class="status" role="status">{{ said }}</p>
      </main>
      <aside v-if="specimen && character" class="right" :aria-label="$t('measure.tray.title')">
        <p v-if="isOfTwo(character.type)" class="quiet">{{ $t('measure.twoParts') }}</p>
        <p v-else-if="picture && editable && (shape === 'LONGEST' || shape === 'LARGEST')" class="quiet">
          {{ $t(`measure.ofSet.${shape}`) }}
        </p>
        <ProblemNote :problem="problem" />
        <ReadingTray
          v-model:item="item"
          :character="character"
          :specimen="specimen"
          :readings="visible"
          :items="items"
          :editable="editable"
          :chosen="readingId"
          :caliper-address="caliper"
          :add="add"
          :correct="correct"
          :remove="remove"
          :slug="model.slug"
          :name-of="entryName"
          @choose="readingId = $event"
        />
        <v-checkbox v-model="blind" :label="$t('measure.blind')" density="compact" hide-details />
        <p v-if="blind" class="quiet">{{ $t('measure.blinded') }}</p>
        <template v-else-if="measured">
          <RowReadings
            :measured="measured"
            :rows="study.rows"
            :row="speaksFor"
            :specimen="specimenId"
            :character="character"
            @choose="specimenId = $event"
          />
          <BesideSize
            :rows="study.rows"
            :characters="characters"
            :character="character"
            :row="speaksFor"
            :specimen="specimenId"
            @choose="specimenId = $event"
          />
        </template>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.measure {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding: 0.8rem 1rem 0.4rem;
  gap: 0.5rem;
}

.head,
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.6rem;
}

.which {
  flex: 0 1 20rem;
}

.few {
  flex: 0 1 12rem;
}

.areas {
  flex: 1 1 auto;
  min-height: 0;
  display: grid;
  grid-template-columns: 13rem minmax(0, 1fr) 23rem;
  gap: 1rem;
}

.middle {
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
  min-height: 0;
}

.picture {
  flex: 1 1 auto;
}

.right {
  overflow: auto;
  padding-top: 0.4rem;
}

.status {
  margin: 0;
  min-height: 1.4em;
  font-size: 0.86rem;
}

@media (width <= 1000px) {
  .measure {
    height: auto;
  }

  .areas {
    display: block;
  }

  .areas > :first-child {
    max-height: 13rem;
  }

  .picture {
    height: 62vh;
  }
}
</style>
