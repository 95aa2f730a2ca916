<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useCompact } from '@/shared/ui/useCompact';
import type { Point } from '../logic/viewport';

/** Says how long a picture's pixels are: by a bar whose ends were placed, or as in another picture. */
const props = defineProps<{
  picture: Schemas['Picture'];
  pictures: Schemas['Picture'][];
  /** The ends that were just placed; without them those that the picture has. */
  ends: [Point, Point] | null;
  busy: boolean;
  problem: Error | null;
}>();
const emit = defineEmits<{ save: [scale: Schemas['Scale'] | undefined]; close: [] }>();
const { t } = useI18n();
const field = useCompact(() => false);
const length = ref('');
const name = ref('');
const like = ref('');
const tilt = ref(5);

watch(
  () => props.picture.id,
  () => {
    length.value = props.picture.scale?.length ?? '';
    name.value = props.picture.scale?.name ?? '';
    like.value = props.picture.scale?.like ?? '';
    tilt.value = props.picture.scale?.tilt ?? 5;
  },
  { immediate: true },
);
watch(
  () => props.ends,
  (ends) => ends && (like.value = ''),
);

/** Pictures of the same size whose scale has a name. */
const offered = computed(() => [
  { value: '', title: t('measure.scale.own') },
  ...props.pictures
    .filter((p) => p.scale?.name && p.id !== props.picture.id)
    .map((p) => ({
      value: p.id,
      title: t('measure.scale.like', { name: p.scale?.name ?? '', width: p.width, height: p.height }),
      props: { disabled: p.width !== props.picture.width || p.height !== props.picture.height },
    })),
]);

const ends = computed<[Point, Point] | null>(() => {
  const { from, to } = props.picture.scale ?? {};
  return props.ends ?? (from && to ? [from, to] : null);
});

function save() {
  const bar = ends.value;
  if (like.value) emit('save', { like: like.value, tilt: Number(tilt.value) });
  else if (bar)
    emit('save', { from: bar[0], to: bar[1], length: length.value, name: name.value, tilt: Number(tilt.value) });
}
</script>

<template>
  <form class="scale" :aria-label="$t('measure.scale.title')" @submit.prevent="save">
    <p>{{ $t(ends || like ? 'measure.scale.says' : 'measure.scale.place') }}</p>
    <v-select
      v-if="offered.length > 1"
      v-bind="field"
      v-model="like"
      :items="offered"
      :label="$t('measure.scale.by')"
    />
    <v-text-field
      v-if="!like"
      v-bind="field"
      v-model="length"
      :label="$t('measure.scale.length')"
      :placeholder="$t('measure.scale.lengthLike')"
    />
    <v-text-field
      v-if="!like"
      v-bind="field"
      v-model="name"
      :label="$t('measure.scale.name')"
      :placeholder="$t('measure.scale.nameLike')"
    />
    <v-text-field v-bind="field" v-model="tilt" type="number" min="0" max="60" :label="$t('measure.scale.tilt')" />
    <div class="ways">
      <v-btn
        type="submit"
        color="primary"
        variant="flat"
        :loading="busy"
        :disabled="!like && !(ends && length.trim())"
        >{{ $t('measure.scale.save') }}</v-btn
      >
      <v-btn variant="text" @click="emit('close')">{{ $t('discard') }}</v-btn>
    </div>
    <ProblemNote class="wide" :problem="problem" />
  </form>
</template>

<style scoped>
.scale {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.5rem;
  align-items: center;
  padding: 0.5rem 0.7rem;
  border: 1px solid var(--rule);
  background: rgb(var(--v-theme-surface));
}

.scale > p,
.wide {
  grid-column: 1 / -1;
  margin: 0;
}

.ways {
  display: flex;
  gap: 0.3rem;
}
</style>
