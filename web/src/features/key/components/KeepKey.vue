<script setup lang="ts">
import { mdiBookmarkPlusOutline } from '@mdi/js';
import { ref } from 'vue';
import type { Schemas } from '@/api/client';
import AskDialog from '@/shared/ui/AskDialog.vue';
import { useAction } from '@/shared/ui/useAction';
import { useNamedKeys } from '../composables/useNamedKeys';

/** Keeps the key that is shown under a name, or in the place of one that was kept before. */
const props = defineProps<{
  /** Id of the key as it was made. */
  job: string;
  /** What to call it, until somebody says otherwise. */
  suggested: string;
  /** The key that this one could replace. */
  replaces?: Schemas['NamedKeyLine'];
}>();
const emit = defineEmits<{ kept: [id: number] }>();
const keys = useNamedKeys();
const { busy, problem, run } = useAction();
const LONGEST = 80;
const asking = ref(false);
const name = ref('');

function ask() {
  name.value = props.suggested.charAt(0).toUpperCase() + props.suggested.slice(1, LONGEST);
  problem.value = null;
  asking.value = true;
}

async function keep() {
  let id = 0;
  if (await run(async () => void (id = (await keys.keep(name.value, props.job)).id))) {
    asking.value = false;
    emit('kept', id);
  }
}

async function replace() {
  const id = props.replaces?.id ?? 0;
  if (await run(() => keys.replace(id, props.job))) {
    asking.value = false;
    emit('kept', id);
  }
}
</script>

<template>
  <v-btn size="small" :disabled="!job" :prepend-icon="mdiBookmarkPlusOutline" @click="ask">{{
    $t('namedKeys.keep')
  }}</v-btn>
  <AskDialog
    v-model="asking"
    :title="$t('namedKeys.keepTitle')"
    :text="$t('namedKeys.keepLead')"
    :yes="$t('namedKeys.keepIt')"
    :disabled="!name.trim()"
    :busy="busy"
    :problem="problem"
    @give="keep"
  >
    <v-text-field v-model="name" :label="$t('namedKeys.name')" :maxlength="LONGEST" autofocus hide-details />
    <template v-if="replaces" #more>
      <v-btn :disabled="busy" @click="replace">{{ $t('namedKeys.replace', { name: replaces.name }) }}</v-btn>
    </template>
  </AskDialog>
</template>
