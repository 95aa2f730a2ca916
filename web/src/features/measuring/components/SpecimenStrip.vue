<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import { usePictures } from '@/shared/picture/pictures';
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import SpecimenName from './SpecimenName.vue';

/** Specimens to measure: those that were photographed first, with how often each was read in the character at hand. */
const props = defineProps<{
  specimens: Schemas['Specimen'][];
  pictures: Schemas['Picture'][];
  names: (specimen: Schemas['Specimen']) => { label: string; stage: string };
  hazards: (specimen: Schemas['Specimen']) => Schemas['StudyRow']['hazard'];
  counts: Map<string, number>;
  chosen: string;
}>();
const emit = defineEmits<{ choose: [id: string] }>();
const src = usePictures();
const find = ref('');
const unread = ref(false);

const pictureOf = computed(() => new Map(props.pictures.filter((p) => p.specimen).map((p) => [p.specimen, p.id])));

const found = computed(() => {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean);
  return props.specimens.filter((s) => {
    const text = [s.code, ...Object.values(props.names(s))].join(' ').toLowerCase();
    return (!unread.value || !props.counts.get(s.id)) && words.every((w) => text.includes(w));
  });
});

/** The chosen one is brought into the list. */
const list = useTemplateRef<HTMLElement>('list');
watch(
  () => [props.chosen, props.specimens.length],
  () => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
);
onMounted(() => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'center' }));

const thumbnail = (specimen: string) => src(pictureOf.value.get(specimen) ?? '')?.small;
</script>

<template>
  <nav :aria-label="$t('measure.strip.title')" class="strip">
    <v-text-field v-model="find" :label="$t('measure.strip.find')" density="compact" hide-details clearable />
    <v-checkbox v-model="unread" :label="$t('measure.strip.unread')" density="compact" hide-details />
    <p v-if="!found.length" class="quiet">{{ $t('measure.strip.none') }}</p>
    <ul ref="list">
      <li v-for="specimen in found" :key="specimen.id">
        <button
          type="button"
          :class="{ chosen: specimen.id === chosen }"
          :aria-current="specimen.id === chosen ? 'true' : undefined"
          @click="emit('choose', specimen.id)"
        >
          <img v-if="thumbnail(specimen.id)" :src="thumbnail(specimen.id)" alt="" loading="lazy" />
          <span v-else class="blank" aria-hidden="true" />
          <span>
            <strong class="figures">{{ specimen.code }}</strong>
            <SpecimenName v-bind="names(specimen)" /><HazardMark class="hazard" :hazard="hazards(specimen)" />
            <span class="quiet figures">{{ $t('measure.strip.read', counts.get(specimen.id) ?? 0) }}</span>
          </span>
        </button>
      </li>
    </ul>
  </nav>
</template>

<style scoped>
.strip {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  min-height: 0;
}

button {
  display: grid;
  grid-template-columns: 3.4rem 1fr;
  gap: 0.5rem;
  width: 100%;
  padding: 0.3rem;
  text-align: left;
  border-bottom: 1px solid var(--rule);
  line-height: 1.25;
}

button.chosen {
  box-shadow: inset 3px 0 rgb(var(--v-theme-primary));
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 8%, transparent);
}

button strong,
button .of,
button .quiet {
  display: block;
  font-size: 0.84rem;
}

.hazard {
  margin: 0;
  font-size: 0.8rem;
}

img,
.blank {
  width: 3.4rem;
  height: 2.6rem;
  object-fit: cover;
  border: 1px solid var(--rule);
}
</style>
