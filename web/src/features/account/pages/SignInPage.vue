<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useSession } from '@/stores/session';

const session = useSession();
const router = useRouter();
const route = useRoute();
const name = ref('');
const password = ref('');
const { busy, problem, run } = useAction();

const PATIENCE = 2000;

// The first start loads the demo, which takes a while on a busy machine; the accounts come with it.
const { pause } = useIntervalFn(() => {
  if (session.starting) session.reload().catch(() => undefined);
  else pause();
}, PATIENCE);

function signIn(who: string, secret: string) {
  return run(async () => {
    await session.signIn(who, secret);
    const next =
      typeof route.query.next === 'string' && route.query.next.startsWith('/') ? route.query.next : '/studies';
    await router.push(next.startsWith('//') ? '/studies' : next);
  });
}
</script>

<template>
  <v-main>
    <div class="door">
      <section class="plate">
        <h1>{{ $t('product') }}</h1>
        <p>{{ $t('signIn.lead') }}</p>
        <svg viewBox="0 0 420 220" role="img" :aria-label="$t('signIn.drawing')">
          <g fill="none" stroke="currentColor" stroke-width="1.4" stroke-linecap="round">
            <path d="M10 200h400" />
            <path
              v-for="(x, i) in [46, 60, 74, 90, 104]"
              :key="`a${i}`"
              :d="`M75 200C${x} 150 ${x - 20} 90 ${x * 1.9 - 75} 40`"
            />
            <path
              v-for="(x, i) in [180, 196, 212, 228, 244]"
              :key="`b${i}`"
              :d="`M212 200C${x} 150 ${x} 100 ${x * 1.6 - 128} 52`"
            />
            <path v-for="y in [60, 72, 84, 96]" :key="`s${y}`" :d="`M206 ${y}q6 -9 12 0q-6 9 -12 0`" />
            <path
              v-for="(x, i) in [318, 332, 346, 360, 374]"
              :key="`c${i}`"
              :d="`M346 200C${x} 160 ${x} 110 ${x * 1.5 - 173} 66`"
            />
            <path d="M346 200V34M346 60l-18-14M346 60l18-14M346 82l-24-16M346 82l24-16" />
            <path d="M330 200q16 -22 32 0" />
          </g>
        </svg>
      </section>
      <section class="form" :aria-label="$t('signIn.title')">
        <h2>{{ $t('signIn.title') }}</h2>
        <p v-if="session.starting" role="status" class="starting">
          <v-progress-circular indeterminate size="18" width="2" aria-hidden="true" />
          {{ $t('signIn.starting') }}
        </p>
        <form @submit.prevent="signIn(name, password)">
          <v-text-field v-model="name" :label="$t('signIn.name')" autocomplete="username" autofocus />
          <v-text-field
            v-model="password"
            :label="$t('signIn.password')"
            type="password"
            autocomplete="current-password"
          />
          <ProblemNote :problem="problem" />
          <v-btn type="submit" color="primary" variant="flat" :loading="busy" :disabled="session.starting" block>{{
            $t('signIn.go')
          }}</v-btn>
        </form>
        <template v-if="session.demoAccounts.length && !session.starting">
          <h3>{{ $t('signIn.demo') }}</h3>
          <ul>
            <li v-for="person in session.demoAccounts" :key="person.name">
              <v-btn variant="text" color="primary" @click="signIn(person.name, person.password)">
                {{ person.displayName }}
              </v-btn>
              <span class="quiet">{{ person.role }}</span>
            </li>
          </ul>
        </template>
      </section>
    </div>
  </v-main>
</template>

<style scoped>
.door {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(18rem, 24rem);
  gap: 4rem;
  max-width: 62rem;
  margin: 0 auto;
  padding: 12vh 1.5rem 2rem;
}

.plate h1 {
  font-size: 3rem;
}

.plate p {
  font-family: var(--serif);
  font-size: 1.2rem;
  max-width: 30rem;
  margin: 1rem 0 2rem;
}

.plate svg {
  width: 100%;
  max-width: 30rem;
  color: rgb(var(--v-theme-primary));
}

.form h2 {
  margin-bottom: 1rem;
}

.starting {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  margin-bottom: 1rem;
}

.form h3 {
  margin-top: 2rem;
  border-top: 1px solid var(--rule);
  padding-top: 1rem;
}

ul {
  list-style: none;
  padding: 0;
}

@media (max-width: 760px) {
  .door {
    grid-template-columns: 1fr;
    gap: 1rem;
    padding-top: 2rem;
  }

  .plate svg {
    display: none;
  }
}
</style>
