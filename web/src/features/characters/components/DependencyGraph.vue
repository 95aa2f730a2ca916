<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { dependencies, type Edge, type Node } from '../logic/dependencies';

/** Which characters are asked only after others, drawn from left to right; a click or Enter chooses one. */
const props = defineProps<{ characters: readonly Schemas['StudyCharacter'][]; selected: string }>();
const emit = defineEmits<{ select: [id: string] }>();
const WIDE = 190;
const HIGH = 30;
const ACROSS = 330;
const DOWN = 46;

const graph = computed(() => dependencies(props.characters));
const width = computed(() => Math.max(0, ...graph.value.nodes.map((n) => n.depth)) * ACROSS + WIDE + 2);
const height = computed(() => Math.max(0, ...graph.value.nodes.map((n) => n.place)) * DOWN + HIGH + 2);
const x = (node: Node) => node.depth * ACROSS + 1;
const y = (node: Node) => node.place * DOWN + 1;
const short = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

function curve({ from, to }: Edge): string {
  const start = x(from) + WIDE;
  const middle = (start + x(to)) / 2;
  return `M${start} ${y(from) + HIGH / 2}C${middle} ${y(from) + HIGH / 2} ${middle} ${y(to) + HIGH / 2} ${x(to)} ${y(to) + HIGH / 2}`;
}
</script>

<template>
  <details v-if="graph.nodes.length" class="graph">
    <summary>{{ $t('characters.graph', { n: graph.edges.length }) }}</summary>
    <div class="paper">
      <svg :width="width" :height="height" role="group" :aria-label="$t('characters.graphOf')">
        <g v-for="(edge, i) in graph.edges" :key="i" aria-hidden="true">
          <path :d="curve(edge)" />
          <text :x="x(edge.to) - 6" :y="y(edge.to) + HIGH / 2 - 5" text-anchor="end" class="states">
            {{ short(edge.states.join(', '), 22) }}
          </text>
        </g>
        <g
          v-for="node in graph.nodes"
          :key="node.id"
          role="button"
          tabindex="0"
          :aria-label="node.label"
          :aria-pressed="node.id === selected"
          :class="{ chosen: node.id === selected }"
          @click="emit('select', node.id)"
          @keydown.enter.prevent="emit('select', node.id)"
          @keydown.space.prevent="emit('select', node.id)"
        >
          <title>{{ node.label }}</title>
          <rect :x="x(node)" :y="y(node)" :width="WIDE" :height="HIGH" />
          <text :x="x(node) + 8" :y="y(node) + HIGH / 2 + 5">{{ short(node.label, 25) }}</text>
        </g>
      </svg>
    </div>
  </details>
</template>

<style scoped>
.graph {
  margin: 0.6rem 0 1rem;
}

summary {
  cursor: pointer;
}

.paper {
  overflow-x: auto;
  padding: 0.6rem 0;
}

path {
  fill: none;
  stroke: var(--faint);
}

rect {
  fill: rgb(var(--v-theme-surface));
  stroke: var(--faint);
}

g[role='button'] {
  cursor: pointer;
}

.chosen rect,
g[role='button']:focus-visible rect {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 2.5;
}

g[role='button']:focus {
  outline: none;
}

text {
  font-size: 14px;
  fill: currentColor;
}

.states {
  font-size: 12.5px;
  fill: var(--faint);
  stroke: rgb(var(--v-theme-background));
  stroke-width: 5px;
  paint-order: stroke;
}
</style>
