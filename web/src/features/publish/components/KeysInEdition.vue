<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { madeFor, useNamedKeys } from '@/features/key';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';

/** Which further keys the next edition holds, and which of them stand in its way. */
const { slug } = useStudy();
const { t } = useI18n();
const { all } = useNamedKeys();
const chosen = computed(() => all.data.value?.filter((k) => k.published) ?? []);
</script>

<template>
  <section aria-labelledby="further-keys">
    <h3 id="further-keys">{{ $t('namedKeys.inEdition') }}</h3>
    <ProblemNote :problem="all.error.value" />
    <p v-if="!chosen.length" class="quiet">{{ $t('namedKeys.noneInEdition') }}</p>
    <template v-else>
      <p>{{ $t('namedKeys.inEditionLead') }}</p>
      <ul>
        <li v-for="key in chosen" :key="key.id">
          <router-link :to="`/studies/${slug}/key?kept=${key.id}`">{{ key.name }}</router-link>
          <span class="quiet made">{{ madeFor(key.request, t) }}</span>
          <strong v-if="!key.standing.current" class="old">{{ $t('namedKeys.outOfDate') }}</strong>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.made,
.old {
  margin-left: 0.5rem;
}

.old {
  color: rgb(var(--v-theme-error));
}
</style>
