<script setup lang="ts">
import { useI18n } from 'vue-i18n';
import { AccountMenu } from '@/features/account';
import KeyList from '@/shared/keys/KeyList.vue';
import { EVERYWHERE, OF_STAGE } from '@/shared/keys/keys';

/** The words of the house explained, and what keys do. */
const { tm } = useI18n();
const words = Object.keys(tm('help.name'));
</script>

<template>
  <v-main>
    <div class="page">
      <header>
        <h1>{{ $t('help.title') }}</h1>
        <AccountMenu />
      </header>
      <p>
        <router-link to="/studies">{{ $t('tokens.studies') }}</router-link>
      </p>
      <p class="quiet">{{ $t('help.lead') }}</p>
      <section aria-labelledby="words">
        <h2 id="words">{{ $t('help.words') }}</h2>
        <dl>
          <template v-for="word in words" :key="word">
            <dt :id="word">{{ $t(`help.name.${word}`) }}</dt>
            <dd>{{ $t(`help.means.${word}`) }}</dd>
          </template>
        </dl>
      </section>
      <section aria-labelledby="keys">
        <h2 id="keys">{{ $t('help.keys') }}</h2>
        <h3>{{ $t('help.everywhere') }}</h3>
        <KeyList :keys="EVERYWHERE" />
        <template v-for="(keys, stage) in OF_STAGE" :key="stage">
          <h3>{{ $t(`stage.${stage}`) }}</h3>
          <KeyList :keys="keys" />
        </template>
      </section>
    </div>
  </v-main>
</template>

<style scoped>
.page {
  max-width: 52rem;
}

header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

section {
  margin-top: 1.5rem;
}

section > dl {
  display: grid;
  grid-template-columns: 12rem 1fr;
  gap: 0.5rem 1rem;
}

section > dl > dt {
  font-family: var(--serif);
  font-weight: 600;
}

section > dl > dd {
  margin: 0;
}

@media (max-width: 600px) {
  section > dl {
    grid-template-columns: 1fr;
    gap: 0.1rem;
  }

  section > dl > dd {
    margin-bottom: 0.6rem;
  }
}
</style>
