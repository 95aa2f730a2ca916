<script setup lang="ts">
import { mdiAccountCircleOutline } from '@mdi/js';
import { useRouter } from 'vue-router';
import { usePreferences } from '@/stores/preferences';
import { useSession } from '@/stores/session';

const session = useSession();
const preferences = usePreferences();
const router = useRouter();

async function leave() {
  await session.signOut();
  await router.push('/sign-in');
}
</script>

<template>
  <div class="account">
    <v-menu>
      <template #activator="{ props }">
        <v-btn
          v-bind="props"
          variant="text"
          size="small"
          :prepend-icon="mdiAccountCircleOutline"
          :aria-label="session.account?.displayName"
        >
          <span class="who">{{ session.account?.displayName }}</span>
        </v-btn>
      </template>
      <v-list density="compact">
        <slot />
        <v-list-item
          :title="$t(preferences.dark ? 'account.light' : 'account.dark')"
          @click="preferences.dark = !preferences.dark"
        />
        <v-divider />
        <v-list-item :title="$t('account.own')" to="/account" />
        <v-list-item v-if="session.account?.administrator" :title="$t('account.people')" to="/accounts" />
        <v-list-item :title="$t('account.signOut')" @click="leave" />
      </v-list>
    </v-menu>
  </div>
</template>

<style scoped>
.account {
  display: flex;
  align-items: center;
}

@media (max-width: 500px) {
  .who {
    display: none;
  }
}
</style>
