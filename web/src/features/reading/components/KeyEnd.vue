<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { endsOf, membersOf, OpenDanger } from '@/features/key';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';

/** What a key ends at: its names, why it goes no further, and what dangerous thing the way there does not rule out. */
defineProps<{
  terminal: Schemas['TerminalView'];
  taxonLink: string;
  /** Whether it is told elsewhere what dangerous thing is not ruled out. */
  told: boolean;
}>();
</script>

<template>
  <div class="end">
    <p v-for="n in endsOf(terminal)" :key="n.row" class="name">
      <router-link :to="`${taxonLink}${n.row}`"><TaxonName :label="n.label" :stage="n.stage" /></router-link>
      <HazardMark :hazard="n.hazard" :text="n.hazardText" full />
    </p>
    <p v-if="terminal.group" class="quiet">{{ membersOf(terminal) }}</p>
    <p v-if="terminal.reason" class="quiet">{{ terminal.reason }}</p>
    <template v-if="!told">
      <OpenDanger v-for="d in terminal.notRuledOut" :key="d.name.row" :danger="d" />
    </template>
    <p>{{ $t('reading.compare') }}</p>
    <p class="quiet">{{ $t('reading.noPermission') }}</p>
  </div>
</template>

<style scoped>
.name {
  font-family: var(--serif);
  font-size: 1.3rem;
  margin: 0.2rem 0;
}
</style>
