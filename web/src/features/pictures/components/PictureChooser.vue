<script setup lang="ts">
import { mdiImageOutline, mdiImagePlusOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import { useStudy } from '@/study-kernel';
import StatePicture from '@/shared/picture/StatePicture.vue';
import PictureUpload from './PictureUpload.vue';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** Chooses a picture of the study, or adds one. */
const chosen = defineModel<string>({ required: true });
defineProps<{ name: string; readonly?: boolean }>();
const model = useStudy();
const open = ref(false);
const wanted = ref('');
const found = computed(() => {
  const words = wanted.value.toLowerCase();
  return (model.study.value?.pictures ?? []).filter((p) => p.shows.toLowerCase().includes(words));
});

function choose(id: string) {
  chosen.value = id;
  open.value = false;
}
</script>

<template>
  <div class="chooser">
    <StatePicture :id="chosen" />
    <v-btn
      v-if="!readonly"
      size="small"
      variant="text"
      :prepend-icon="chosen ? mdiImageOutline : mdiImagePlusOutline"
      :aria-label="$t('picture.chooseFor', { name })"
      @click="open = true"
      >{{ $t(chosen ? 'picture.other' : 'picture.choose') }}</v-btn
    >
    <ModalDialog v-model="open" max-width="880" scrollable :aria-label="$t('picture.chooseFor', { name })">
      <v-card :title="$t('picture.chooseFor', { name })">
        <v-card-text class="body">
          <section>
            <v-text-field v-model="wanted" :label="$t('picture.find')" density="compact" hide-details autofocus />
            <ul>
              <li v-for="picture in found" :key="picture.id">
                <button type="button" :aria-pressed="picture.id === chosen" @click="choose(picture.id)">
                  <StatePicture :id="picture.id" decorative />
                  <span>{{ picture.shows }}</span>
                </button>
              </li>
            </ul>
            <p v-if="!found.length" class="quiet">{{ $t('picture.none') }}</p>
          </section>
          <section>
            <h3>{{ $t('picture.new') }}</h3>
            <PictureUpload :shows="name" @added="choose" />
          </section>
        </v-card-text>
        <v-card-actions>
          <v-btn v-if="chosen" @click="choose('')">{{ $t('picture.without') }}</v-btn>
          <v-spacer />
          <v-btn @click="open = false">{{ $t('close') }}</v-btn>
        </v-card-actions>
      </v-card>
    </ModalDialog>
  </div>
</template>

<style scoped>
.chooser {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}

.body {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: 1.5rem;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(7rem, 1fr));
  gap: 0.6rem;
  padding: 0.8rem 0 0;
  list-style: none;
}

/* Not the button that opens the dialog, which may stand in a list itself. */
.body li button {
  display: grid;
  gap: 0.2rem;
  width: 100%;
  text-align: left;
  font-size: 0.85rem;
}

.body li button[aria-pressed='true'] {
  outline: 3px solid rgb(var(--v-theme-primary));
}

@media (max-width: 700px) {
  .body {
    grid-template-columns: 1fr;
  }
}
</style>
