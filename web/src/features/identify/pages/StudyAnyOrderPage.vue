<script setup lang="ts">
import { useStudy } from '@/study-kernel';
import AnyOrderKey from '../components/AnyOrderKey.vue';

const model = useStudy();
</script>

<template>
  <div v-if="model.study.value">
    <h1 class="sr-only">{{ $t('stage.any-order') }}</h1>
    <AnyOrderKey
      :characters="model.study.value.characters"
      :outside="model.study.value.outside"
      :endpoint="`/api/v1/studies/${model.slug}/identify`"
    />
  </div>
</template>
