<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Schemas } from '@/api/client';
import { LeadFields } from '@/features/characters';
import WriteProblem from '@/shared/ui/WriteProblem.vue';
import { LoseDialog, useEditing, useStudy } from '@/study-kernel';

/** Rewords the characters of a couplet while it stands in view; saving makes the key again with the new words. */
const props = defineProps<{ couplet: Schemas['CoupletView'] }>();
const model = useStudy();
const characters = computed(() => model.study.value?.characters ?? []);
const editing = useEditing(model, { path: 'characters', object: 'character' }, characters);
const draft = editing.draft;
const asked = computed(() => {
  const ids = props.couplet.leads.flatMap((lead) => lead.statements.map((s) => s.character));
  return characters.value.filter((c) => ids.includes(c.id));
});

// The shelf is long: what was chosen in it comes into view.
const form = ref<HTMLFormElement>();
watch(form, (shown) => shown?.scrollIntoView?.({ block: 'nearest' }));
</script>

<template>
  <section :aria-label="$t('lead.of')">
    <h4>{{ $t('lead.of') }}</h4>
    <p>
      <v-btn
        v-for="character in asked"
        :key="character.id"
        size="small"
        variant="text"
        :aria-pressed="character.id === draft?.id"
        :active="character.id === draft?.id"
        @click="editing.select(character.id === draft?.id ? '' : character.id)"
        >{{ character.label }}</v-btn
      >
    </p>
    <form v-if="draft" ref="form" @submit.prevent="editing.save()">
      <h5>{{ draft.label }}</h5>
      <LeadFields v-model="draft" :readonly="false" />
      <WriteProblem :problem="editing.problem.value" @theirs="editing.theirs" @mine="editing.save" />
      <div class="buttons">
        <v-btn type="submit" color="primary" variant="flat" :loading="editing.busy.value">{{ $t('save') }}</v-btn>
        <v-btn variant="text" :disabled="!editing.dirty.value" @click="editing.discard">{{ $t('discard') }}</v-btn>
        <span v-if="editing.saved.value && !editing.dirty.value" role="status">{{ $t('saved') }}</span>
      </div>
    </form>
    <LoseDialog :editing="editing" />
  </section>
</template>

<style scoped>
h4 {
  margin: 1rem 0 0.2rem;
}

h5 {
  margin: 0;
}

form {
  display: grid;
  gap: 0.6rem;
}

.buttons {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}
</style>
