<script setup lang="ts">
import { mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import BodyPlan from '@/shared/picture/BodyPlan.vue';
import { bodyPlans } from '@/shared/picture/bodyPlans';
import { notDrawn, organOf } from '@/shared/picture/organs';
import { useAction } from '@/shared/ui/useAction';
import WriteProblem from '@/shared/ui/WriteProblem.vue';

/** The outline of the study's organisms: chooses an organ; authors choose the outline and give its parts their names. */
const organ = defineModel<string>({ required: true });
defineProps<{ editable: boolean }>();
const model = useStudy();
const { t } = useI18n();
const { busy, problem, run } = useAction();
const adapting = ref(false);
const added = ref('');
const plan = computed(() => model.study.value?.scope.bodyPlan ?? { plan: '', parts: [] });
const characters = computed(() => model.study.value?.characters ?? []);
const organs = computed(() => [...new Set(characters.value.map((c) => c.organ).filter(Boolean))]);
const others = computed(() => notDrawn(plan.value, organs.value));
const plans = computed(() => [
  { value: '', title: t('plan.none') },
  ...Object.keys(bodyPlans).map((value) => ({ value, title: t(`plan.kind.${value}`) })),
]);
const parts = computed(() => (bodyPlans[plan.value.plan] ?? []).map((p) => p.part));
const count = (name: string) => characters.value.filter((c) => c.organ === name).length;
const named = (part: string) => {
  const name = organOf(part, plan.value.parts, organs.value);
  return { organ: name, count: count(name) };
};

function choose(name: string) {
  organ.value = organ.value === name ? '' : name;
}

let last: Schemas['BodyPlan'] = { plan: '', parts: [] };

function write(bodyPlan: Schemas['BodyPlan'], over?: number) {
  last = bodyPlan;
  return run(async () => {
    const study = model.study.value;
    if (!study) return;
    const body = {
      title: study.title,
      scope: { ...study.scope, bodyPlan },
      baseRevision: over ?? model.baseRevision('scope'),
    };
    await api.put('/api/v1/studies/{slug}/scope', { slug: model.slug }, body);
    await model.reload();
  });
}

function name(part: string, called: string) {
  const rest = plan.value.parts.filter((p) => p.part !== part);
  const own = called.trim() && called.trim() !== part ? [{ part, organ: called.trim() }] : [];
  void write({ ...plan.value, parts: [...rest, ...own] });
}

async function add() {
  const organName = added.value.trim();
  if (organName && (await write({ ...plan.value, parts: [...plan.value.parts, { part: '', organ: organName }] })))
    added.value = '';
}
</script>

<template>
  <section class="panel" :aria-label="$t('plan.title')">
    <BodyPlan v-if="parts.length" :plan="plan.plan" :named="named" :selected="organ" @select="choose" />
    <div class="beside">
      <p v-if="organ" role="status">
        {{ $t('plan.showing', { organ }) }}
        <button type="button" class="link" @click="organ = ''">{{ $t('plan.all') }}</button>
      </p>
      <p v-else-if="parts.length" class="quiet">{{ $t('plan.hint') }}</p>
      <ul v-if="others.length && parts.length">
        <li v-for="other in others" :key="other">
          <button type="button" class="link" :aria-pressed="organ === other" @click="choose(other)">
            {{ $t('plan.part', { name: other, n: count(other) }) }}
          </button>
        </li>
      </ul>
      <template v-if="editable">
        <v-select
          :model-value="plan.plan"
          :items="plans"
          :label="$t('plan.choose')"
          :loading="busy"
          density="compact"
          hide-details
          @update:model-value="write({ ...plan, plan: $event })"
        />
        <v-btn v-if="plan.plan" size="small" variant="text" @click="adapting = !adapting">{{ $t('plan.adapt') }}</v-btn>
        <form v-if="adapting" @submit.prevent="add">
          <v-combobox
            v-for="part in parts"
            :key="part"
            :model-value="named(part).organ"
            :items="organs"
            :label="part"
            density="compact"
            variant="outlined"
            hide-details
            @update:model-value="name(part, String($event ?? ''))"
          />
          <v-text-field v-model="added" :label="$t('plan.own')" density="compact" hide-details />
          <v-btn type="submit" size="small" :prepend-icon="mdiPlus" :disabled="!added.trim()">{{
            $t('plan.addOwn')
          }}</v-btn>
        </form>
      </template>
      <WriteProblem :problem="problem" @theirs="model.reload" @mine="write(last, $event)" />
    </div>
  </section>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-columns: minmax(12rem, 20rem) minmax(0, 1fr);
  gap: 1.2rem;
  margin: 1rem 0;
}

.beside,
form {
  display: grid;
  gap: 0.5rem;
  align-content: start;
  justify-items: start;
}

.beside .v-select,
form,
form > * {
  width: 100%;
  max-width: 20rem;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.9rem;
  list-style: none;
  padding: 0;
}

.link {
  text-decoration: underline;
}

.link[aria-pressed='true'] {
  font-weight: 600;
}

@media (max-width: 700px) {
  .panel {
    grid-template-columns: 1fr;
  }
}
</style>
