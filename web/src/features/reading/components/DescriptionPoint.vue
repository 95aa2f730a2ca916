<script setup lang="ts">
import { mdiCheck, mdiCircleOutline, mdiClose } from '@mdi/js';
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';

/** One point of a description: what it says, how it stands, and how to answer it. */
const props = defineProps<{
  point: Schemas['CheckPointView'];
  seen: string;
  /** Whether it was answered by itself, and not read on a way through a key. */
  own: boolean;
  plain: boolean;
}>();
const emit = defineEmits<{ agrees: []; look: []; withdraw: [] }>();

const ICONS = { AGREES: mdiCheck, DISAGREES: mdiClose, NOT_EXAMINED: mdiCircleOutline };
const text = computed(() => {
  const said = props.plain ? props.point.plain : props.point.text;
  return said.charAt(0).toUpperCase() + said.slice(1);
});
const examined = computed(() => props.point.verdict !== 'NOT_EXAMINED');
</script>

<template>
  <li :class="point.verdict.toLowerCase()">
    <v-icon :icon="ICONS[point.verdict]" aria-hidden="true" class="mark" />
    <div>
      <p class="says"><GlossaryText :text="text" /></p>
      <p class="quiet">
        <strong>{{ $t(`check.verdict.${point.verdict}`) }}</strong><template v-if="seen && examined">{{
          $t('check.seen', { seen })
        }}</template
        ><template v-if="point.implied">{{ ' ' }}{{ $t('ask.implied') }}</template
        ><template v-if="point.mustShow">. {{ $t('check.mustShow') }}</template
        ><template v-if="point.separates.length"
          >.
          {{
            point.others > point.separates.length
              ? $t('check.separatesMore', {
                  names: point.separates.join('; '),
                  n: point.others - point.separates.length,
                })
              : $t('check.separates', { names: point.separates.join('; ') })
          }}</template
        >
      </p>
      <div class="answers no-print">
        <template v-if="!examined">
          <button type="button" @click="emit('agrees')">{{ $t('check.agrees') }}</button>
          <button type="button" @click="emit('look')">{{ $t('check.differs') }}</button>
        </template>
        <button v-else type="button" class="link" @click="emit('look')">{{ $t('check.change') }}</button>
        <button v-if="own" type="button" class="link" @click="emit('withdraw')">
          {{ $t('ask.withdraw') }}
        </button>
      </div>
      <slot />
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1.8rem minmax(0, 1fr);
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--rule);
}

p {
  margin: 0;
}

.says {
  font-family: var(--serif);
  font-size: 1.05rem;
}

.agrees .mark {
  color: rgb(var(--v-theme-primary));
}

.disagrees .mark,
.disagrees strong {
  color: rgb(var(--v-theme-error));
}

.not_examined .mark {
  color: var(--faint);
}

.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.9rem;
  margin-top: 0.3rem;
}

.answers button {
  min-height: 2.75rem;
  padding: 0 0.8rem;
  border: 1px solid currentcolor;
  border-radius: 3px;
}

.answers .link {
  border: 0;
  padding: 0;
  text-decoration: underline;
}
</style>
