<script setup lang="ts">
import { LONGEST, SHORTEST } from '../logic/passwords';

/** A password to be chosen, with the rule that it must keep. */
const password = defineModel<string>({ required: true });
</script>

<template>
  <v-text-field
    v-model="password"
    :label="$t('own.new')"
    :hint="$t('own.rule', { least: SHORTEST, most: LONGEST })"
    persistent-hint
    type="password"
    autocomplete="new-password"
  />
</template>
