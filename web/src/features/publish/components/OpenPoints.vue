<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { isOpen, useFindings, useStudy } from '@/study-kernel';

/** What is open before the next edition, each with its number and the way to it; readers get it as it is. */
const props = defineProps<{ missing: string[] }>();
const model = useStudy();
const findings = useFindings(
  model.slug,
  computed(() => model.study.value?.revision),
);
const step = computed<Schemas['NextStep'] | undefined>(() => model.nextStep.value);
/** Undefined while it is not known. */
const points = computed(() => {
  const progress = model.study.value?.progress;
  const counts: [name: string, count: number | undefined, place: string][] = [
    ['scope', props.missing.length, 'scope'],
    ['dangers', step.value?.dangers, 'dangers'],
    ['pairs', step.value?.open, 'apart'],
    ['thin', step.value?.thin, 'apart'],
    ['hazards', progress?.notAssessed, 'scope'],
    ['questions', progress?.withoutQuestion, 'characters'],
    ['findings', findings.data.value?.filter(isOpen).length, 'checks'],
  ];
  return counts.map(([name, count, place]) => ({ name, count, place }));
});
const settled = computed(() => points.value.every((p) => p.count === 0));
</script>

<template>
  <p v-if="settled" class="good">{{ $t('publish.point.none') }}</p>
  <table v-else class="lines figures">
    <tbody>
      <tr v-for="point in points.filter((p) => p.count !== 0)" :key="point.name">
        <td class="count">{{ point.count ?? '…' }}</td>
        <td>{{ $t(`publish.point.${point.name}`, point.count ?? 2) }}</td>
        <td class="way">
          <router-link :to="`/studies/${model.slug}/${point.place}`">{{
            $t(`publish.place.${point.place}`)
          }}</router-link>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.lines .count {
  width: 3rem;
  font-weight: 600;
  text-align: right;
}

.lines .way {
  padding-right: 0;
  text-align: right;
  white-space: nowrap;
}

.good {
  font-weight: 600;
}
</style>
