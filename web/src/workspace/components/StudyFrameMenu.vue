<script setup lang="ts">
import { mdiMenu } from '@mdi/js';

/** What a study has beside its stages: files, people and help. */
defineProps<{ slug: string; editable: boolean }>();
const emit = defineEmits<{ export: []; share: []; keys: [] }>();
</script>

<template>
  <v-menu>
    <template #activator="{ props: activator }">
      <v-btn v-bind="activator" variant="text" size="small" :prepend-icon="mdiMenu" :aria-label="$t('menu.title')"
        ><span class="word">{{ $t('menu.title') }}</span></v-btn
      >
    </template>
    <v-list density="compact">
      <v-list-subheader>{{ $t('menu.files') }}</v-list-subheader>
      <v-list-item :title="$t('palette.export')" @click="emit('export')" />
      <v-list-item v-if="editable" :title="$t('palette.importInto')" :to="`/import?into=${slug}`" />
      <v-list-item v-if="editable" :title="$t('palette.references')" :to="`/studies/${slug}/references`" />
      <template v-if="editable">
        <v-list-subheader>{{ $t('menu.people') }}</v-list-subheader>
        <v-list-item :title="$t('sharing.title')" @click="emit('share')" />
        <v-list-item :title="$t('second.open')" :to="`/studies/${slug}/second`" />
      </template>
      <v-list-subheader>{{ $t('help.title') }}</v-list-subheader>
      <v-list-item :title="$t('menu.words')" to="/help" />
      <v-list-item :title="$t('keys.title')" @click="emit('keys')"
        ><template #append><span class="quiet">?</span></template></v-list-item
      >
    </v-list>
  </v-menu>
</template>

<style scoped>
@media (max-width: 500px) {
  .word {
    display: none;
  }
}
</style>
