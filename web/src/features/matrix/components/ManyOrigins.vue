<script setup lang="ts">
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';

/** Where many scores come from, said once; what is not said here stays with each as it is. */
const props = defineProps<{ scores: number; references: Schemas['Reference'][] }>();
const emit = defineEmits<{ save: [same: Partial<Schemas['Origin']>] }>();
const { t } = useI18n();
const BASES = ['SPECIMENS', 'REFERENCE', 'JUDGEMENT'] as const;
const bases = BASES.map((value) => ({ value, title: t(`basis.${value}`) }));
const sources = computed(() => props.references.map((r) => ({ value: r.id, title: r.citation })));
const basis = ref<(typeof BASES)[number]>('REFERENCE');
const source = ref('');
</script>

<template>
  <aside :aria-label="$t('origin.many', { n: scores })">
    <h3>{{ $t('origin.many', { n: scores }) }}</h3>
    <form @submit.prevent="emit('save', { basis, source })">
      <v-select v-model="basis" :items="bases" :label="$t('origin.basis')" hide-details />
      <v-combobox
        :model-value="sources.find((s) => s.value === source) ?? source"
        :items="sources"
        :label="$t('origin.source')"
        hide-details
        @update:model-value="source = typeof $event === 'string' ? $event : ($event?.value ?? '')"
      />
      <v-btn type="submit" color="primary" variant="flat">{{ $t('origin.setMany', { n: scores }) }}</v-btn>
    </form>
    <p class="quiet">{{ $t('origin.keeps') }}</p>
    <div class="doubt">
      <v-btn size="small" @click="emit('save', { doubtful: true })">{{ $t('score.menu.doubt') }}</v-btn>
      <v-btn size="small" @click="emit('save', { doubtful: false })">{{ $t('score.menu.certain') }}</v-btn>
    </div>
  </aside>
</template>

<style scoped>
aside {
  border-left: 1px solid var(--rule);
  padding: 1rem;
  overflow: auto;
}

form {
  display: grid;
  gap: 0.75rem;
  margin: 0.75rem 0;
}

.doubt {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>
