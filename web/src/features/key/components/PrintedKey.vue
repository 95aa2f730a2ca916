<script setup lang="ts">
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import { onMounted } from 'vue';
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { endsOf, membersOf } from '../logic/ends';
import OpenDanger from './OpenDanger.vue';

/** The key as it is printed: numbered couplets, parallel leads, back-references; every target is a link. */
const props = withDefaults(
  defineProps<{
    view: Schemas['KeyView'];
    plain: boolean;
    selected?: number | null;
    taxonLink?: string;
    /** Couplets that a key beside this one does not have. */
    marked?: Set<number>;
    /** What the anchors of its couplets begin with: two keys may stand on one page. */
    anchor?: string;
  }>(),
  { selected: null, taxonLink: undefined, marked: undefined, anchor: 'couplet' },
);
const emit = defineEmits<{ select: [couplet: number] }>();

onMounted(() => {
  // Above the first one stands what is said of the key.
  if ((props.selected ?? 1) > 1)
    document.getElementById(`${props.anchor}-${props.selected}`)?.scrollIntoView({ block: 'center' });
});

function jump(couplet: number) {
  emit('select', couplet);
  document.getElementById(`${props.anchor}-${couplet}`)?.scrollIntoView({ block: 'center' });
}
</script>

<template>
  <div class="key">
    <p v-if="view.leftOut?.length" class="left-out">
      {{ $t('key.leftOut') }}
      <template v-for="(n, i) in view.leftOut" :key="n.row"
        >{{ i ? '; ' : '' }}<TaxonName :label="n.label" :stage="n.stage" /><HazardMark
          :hazard="n.hazard"
          :text="n.hazardText" /></template
      >.
    </p>
    <div v-if="view.whole" class="to">
      <div v-for="n in view.whole.names" :key="n.row"><TaxonName :label="n.label" :stage="n.stage" /></div>
      <p v-if="view.whole.reason" class="reason">{{ view.whole.reason }}</p>
      <OpenDanger v-for="d in view.whole.notRuledOut" :key="d.name.row" :danger="d" />
    </div>
    <section
      v-for="couplet in view.couplets"
      :id="`${anchor}-${couplet.number}`"
      :key="couplet.number"
      class="couplet"
      :class="{ on: couplet.number === selected }"
      :aria-label="$t('key.couplet', { n: couplet.number })"
      @click="emit('select', couplet.number)"
    >
      <div class="number figures">
        <button type="button" :aria-label="$t('key.couplet', { n: couplet.number })">{{ couplet.number }}</button>
        <a
          v-if="couplet.from !== undefined"
          :href="`#${anchor}-${couplet.from}`"
          :aria-label="$t('key.back', { n: couplet.from })"
          @click.prevent.stop="jump(couplet.from)"
          >({{ couplet.from }})</a
        >
        <span v-if="marked?.has(couplet.number)" class="differs">{{ $t('namedKeys.onlyHere') }}</span>
      </div>
      <div v-for="(lead, l) in couplet.leads" :key="l" class="lead">
        <p>
          <template v-for="(statement, s) in lead.statements" :key="s"
            ><template v-if="s">; </template
            ><span :class="statement.role.toLowerCase()"
              ><GlossaryText
                :text="
                  s ? lower(plain ? statement.plainText : statement.text) : plain ? statement.plainText : statement.text
                " /></span
          ></template>
        </p>
        <div class="to">
          <a
            v-if="lead.couplet !== undefined"
            class="next figures"
            :href="`#${anchor}-${lead.couplet}`"
            :aria-label="$t('key.goTo', { n: lead.couplet })"
            @click.prevent.stop="jump(lead.couplet)"
            >{{ lead.couplet }}</a
          >
          <template v-else-if="lead.terminal">
            <div v-for="n in endsOf(lead.terminal)" :key="n.row" class="end">
              <router-link v-if="taxonLink" :to="`${taxonLink}${n.row}`" @click.stop
                ><TaxonName :label="n.label" :stage="n.stage"
              /></router-link>
              <TaxonName v-else :label="n.label" :stage="n.stage" />
              <HazardMark :hazard="n.hazard" :text="n.hazardText" />
            </div>
            <p v-if="lead.terminal.group" class="reason">{{ membersOf(lead.terminal) }}</p>
            <p v-if="lead.terminal.reason" class="reason">{{ lead.terminal.reason }}</p>
          </template>
        </div>
        <OpenDanger v-for="d in lead.terminal?.notRuledOut" :key="d.name.row" :danger="d" class="wide" />
      </div>
    </section>
  </div>
</template>

<script lang="ts">
function lower(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}
</script>

<style scoped>
.couplet {
  display: grid;
  grid-template-columns: 3.6rem 1fr;
  border-top: 1px solid var(--rule);
  padding: 0.55rem 0.25rem;
  break-inside: avoid;
}

.couplet.on {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 9%, transparent);
}

.number {
  grid-row: 1 / span 8;
  font-weight: 700;
  padding-top: 0.15rem;
}

.number button {
  font-size: 1.1rem;
  min-width: 1.5rem;
  min-height: 1.5rem;
  text-align: left;
}

.number a {
  font-weight: 400;
  display: inline-block;
  min-width: 1.5rem;
  min-height: 1.5rem;
}

.differs {
  display: block;
  font-weight: 400;
  font-size: 0.8rem;
  color: rgb(var(--v-theme-primary));
}

.wide {
  grid-column: 1 / -1;
}

.lead {
  grid-column: 2;
  display: grid;
  grid-template-columns: minmax(0, 1fr) fit-content(42%);
  gap: 0.15rem 1.25rem;
  padding: 0.2rem 0;
  font-family: var(--serif);
}

.lead p {
  margin: 0;
}

.deciding {
  font-weight: 600;
}

.tendency {
  color: var(--faint);
}

.to {
  text-align: right;
}

.next {
  display: inline-block;
  font-weight: 700;
  font-size: 1.1rem;
  min-width: 2rem;
  min-height: 1.75rem;
}

.end {
  font-weight: 600;
}

.end .hazard,
.end .known {
  display: block;
  font-weight: 400;
  font-family: var(--sans);
  font-size: 0.88rem;
}

.reason {
  font-family: var(--sans);
  font-size: 0.88rem;
  font-style: italic;
  color: var(--faint);
}

@media (max-width: 600px) {
  .couplet {
    grid-template-columns: 2.6rem 1fr;
  }

  .number a {
    display: block;
  }

  .lead {
    grid-template-columns: 1fr;
    gap: 0.2rem;
    padding: 0.5rem 0;
  }

  .to {
    text-align: left;
  }

  .next {
    min-width: 3rem;
    min-height: 2.75rem;
    line-height: 2.75rem;
  }
}

.left-out {
  padding: 0.5rem 0.75rem;
  border-left: 3px solid var(--rule);
}
</style>
