<script setup lang="ts">
/** What keys do. */
defineProps<{ keys: string[] }>();
</script>

<template>
  <dl>
    <template v-for="key in keys" :key="key">
      <dt>{{ $t(`keys.${key}.key`) }}</dt>
      <dd>{{ $t(`keys.${key}.does`) }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 10rem 1fr;
  gap: 0.3rem 1rem;
  margin: 1rem 0;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0;
}

@media (max-width: 500px) {
  dl {
    grid-template-columns: 1fr;
    gap: 0;
  }

  dd {
    margin-bottom: 0.4rem;
  }
}
</style>
