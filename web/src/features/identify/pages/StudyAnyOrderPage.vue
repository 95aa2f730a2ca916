<script setup lang="ts">
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import AnyOrderKey from '../components/AnyOrderKey.vue';

const model = useStudy();
const identify = (request: Schemas['IdentifyRequest']) =>
  api.post('/api/v1/studies/{slug}/identify', { slug: model.slug }, request);
</script>

<template>
  <div v-if="model.study.value">
    <h1 class="sr-only">{{ $t('stage.any-order') }}</h1>
    <AnyOrderKey
      :characters="model.study.value.characters"
      :outside="model.study.value.outside"
      :plan="model.study.value.scope.bodyPlan"
      :of="`study/${model.slug}`"
      :address="`/studies/${model.slug}/any-order`"
      :identify="identify"
    />
  </div>
</template>
