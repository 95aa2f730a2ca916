<script setup lang="ts">
import { mdiArrowRight } from '@mdi/js';
import { computed, ref } from 'vue';
import type { Finding } from '@/study-kernel';
import { placeOf } from '../logic/findings';

/** One finding: what, why, the way to where it is corrected, and the way to say that it is meant. */
const props = defineProps<{ finding: Finding; slug: string; editable: boolean }>();
const emit = defineEmits<{ accept: [reason: string]; correct: []; reopen: [] }>();
const writing = ref(false);
const place = computed(() => placeOf(props.finding));
const reason = ref('');

function accept() {
  if (!reason.value.trim()) return;
  emit('accept', reason.value.trim());
  writing.value = false;
}
</script>

<template>
  <tr>
    <td>
      {{ finding.reason }}
      <p v-if="finding.acceptance" class="quiet">
        {{ $t('checks.meant', { who: finding.acceptance.who, reason: finding.acceptance.reason }) }}
      </p>
      <form v-if="writing" @submit.prevent="accept">
        <v-text-field v-model="reason" :label="$t('checks.why')" density="compact" autofocus hide-details />
        <v-btn type="submit" size="small" color="primary" variant="flat" :disabled="!reason.trim()">{{
          $t('checks.accept')
        }}</v-btn>
        <v-btn size="small" variant="text" @click="writing = false">{{ $t('discard') }}</v-btn>
      </form>
    </td>
    <td class="ways">
      <v-btn
        v-if="editable && finding.correction && !finding.acceptance"
        size="small"
        color="primary"
        variant="flat"
        @click="emit('correct')"
        >{{ finding.correction }}</v-btn
      >
      <v-btn
        v-if="editable && finding.acceptable && !finding.acceptance && !writing"
        size="small"
        variant="text"
        @click="writing = true"
        >{{ $t('checks.accept') }}</v-btn
      >
      <v-btn v-if="editable && finding.acceptance" size="small" variant="text" @click="emit('reopen')">{{
        $t('checks.reopen')
      }}</v-btn>
      <v-btn
        size="small"
        variant="text"
        :to="{ path: `/studies/${slug}/${place.stage}`, query: place.query }"
        :append-icon="mdiArrowRight"
        >{{ $t('checks.goTo') }}</v-btn
      >
    </td>
  </tr>
</template>

<style scoped>
td {
  padding: 0.2rem 0.75rem 0.2rem 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}

td:first-child {
  padding-left: 0.75rem;
}

p {
  margin: 0;
}

form {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  padding: 0.4rem 0;
}

.ways {
  width: 1%;
  padding-right: 0;
  text-align: right;
  white-space: nowrap;
}

@media (max-width: 700px) {
  .ways {
    width: auto;
    white-space: normal;
  }
}
</style>
