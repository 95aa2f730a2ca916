<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { inPercent } from '../logic/share';
import CoupletEvidence from './CoupletEvidence.vue';

/** Why a couplet asks what it asks, and what else it could ask. */
const props = defineProps<{
  view: Schemas['KeyView'];
  couplet: Schemas['CoupletView'];
  study: Schemas['StudyView'];
}>();
const emit = defineEmits<{ forbid: [character: string]; ask: [character: string] }>();
const { t } = useI18n();
const character = computed(() => props.study.characters.find((c) => c.id === props.couplet.character));
/** Of the limits between its leads, the worst. */
const wrong = computed(() => {
  const shares = props.couplet.leads.flatMap((l) => l.statements).flatMap((s) => s.wrong ?? []);
  return shares.length ? Math.max(...shares) : undefined;
});

/** What speaks for another question and against it, in one line. */
function said(other: Schemas['AlternativeView']) {
  const price = other.prices?.reduce((sum, p) => sum + p.couplets, 0) ?? 0;
  return [
    t('key.alternative', { bits: other.gain.toFixed(2), n: other.duplicated }),
    other.misread ? t('key.alternativeMisread', { share: inPercent(other.misread) }) : '',
    price ? t('key.alternativePrice', { n: price.toFixed(1) }) : '',
  ].join('');
}
const both = computed(() => props.study.rows.filter((r) => props.couplet.duplicated.includes(r.id)));
</script>

<template>
  <div>
    <h3>{{ $t('key.couplet', { n: couplet.number }) }}</h3>
    <p v-if="character">
      <strong>{{ character.label }}</strong><template v-if="character.question"> — {{ character.question }}</template>
    </p>
    <p v-if="character?.note" class="quiet">{{ character.note }}</p>
    <p class="figures">
      <template v-if="couplet.gain < 0.005">{{ $t('key.gainsNothing') }}</template>
      <template v-else>{{
        $t('key.gain', { bits: couplet.gain.toFixed(2), n: couplet.rows.length }, couplet.rows.length)
      }}</template>
      <template v-if="couplet.misread">
        {{ ' ' + $t('key.misread', { share: inPercent(couplet.misread) }) }}
      </template>
    </p>
    <p v-if="wrong !== undefined">
      {{
        $t('key.beyond', {
          n: wrong < 0.005 ? $t('key.fewerThanOne') : $t('key.about', { n: Math.round(100 * wrong) }),
        })
      }}
    </p>
    <template v-if="couplet.prices?.length">
      <h4>{{ $t('key.prices') }}</h4>
      <ul>
        <li v-for="price in couplet.prices" :key="price.kind">
          {{ $t(`key.price.${price.kind}`) }}
          <span class="quiet">{{ $t('key.priceCosts', { n: price.couplets.toFixed(1) }) }}</span>
        </li>
      </ul>
    </template>
    <v-btn v-if="character" size="small" @click="emit('forbid', character.id)">{{ $t('key.forbid') }}</v-btn>
    <slot />
    <template v-if="both.length">
      <h4>{{ $t('key.both') }}</h4>
      <ul>
        <li v-for="r in both" :key="r.id"><TaxonName :label="r.label" :stage="r.stage" /></li>
      </ul>
    </template>
    <template v-if="couplet.alternatives.length">
      <h4>{{ $t('key.alternatives') }}</h4>
      <ol class="figures">
        <li v-for="a in couplet.alternatives" :key="a.character">
          {{ a.label }}
          <span class="quiet">{{ said(a) }}</span>
          <v-btn
            size="small"
            variant="text"
            :aria-label="$t('key.askHereInstead', { name: a.label })"
            @click="emit('ask', a.character)"
            >{{ $t('key.askHere') }}</v-btn
          >
        </li>
      </ol>
    </template>
    <CoupletEvidence :view="view" :couplet="couplet" />
  </div>
</template>

<style scoped>
h4 {
  margin: 1rem 0 0.2rem;
}

ul {
  list-style: none;
  padding: 0;
}

ol {
  padding-left: 1.2rem;
}
</style>
