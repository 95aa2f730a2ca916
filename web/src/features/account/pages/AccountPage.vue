<script setup lang="ts">
import { useSession } from '@/stores/session';
import AccountMenu from '../components/AccountMenu.vue';
import OpenSessions from '../components/OpenSessions.vue';
import OwnName from '../components/OwnName.vue';
import OwnPassword from '../components/OwnPassword.vue';
import PersonalTokens from '../components/PersonalTokens.vue';

const session = useSession();
</script>

<template>
  <v-main>
    <div class="page narrow">
      <header>
        <h1>{{ session.account?.displayName }}</h1>
        <AccountMenu />
      </header>
      <p class="quiet">{{ $t('tokens.account', { name: session.account?.name }) }}</p>
      <router-link to="/studies">{{ $t('tokens.studies') }}</router-link>
      <OwnName />
      <OwnPassword />
      <OpenSessions />
      <PersonalTokens />
      <p class="quiet notices">
        {{ $t('notices.lead') }}
        <a href="/notices/java.txt">{{ $t('notices.server') }}</a> ·
        <a href="/notices/web.txt">{{ $t('notices.web') }}</a>
      </p>
    </div>
  </v-main>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

.notices {
  margin-top: 3rem;
}
</style>
