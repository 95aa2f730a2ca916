<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { useWindowed } from '@/shared/ui/useWindowed';
import type { TreeRow } from '../logic/taxonTree';
import { mayDrop, step, type Direction, type Place } from '../logic/treeMoves';

/** Taxa with what belongs to them. Arrows choose, with Alt they move; taxa can be dragged. */
const props = defineProps<{ tree: TreeRow[]; selected: string; editable: boolean }>();
const emit = defineEmits<{ select: [id: string]; move: [id: string, to: Place]; remove: [id: string] }>();
const list = ref<HTMLElement>();
const { shown, padding, reveal, measure } = useWindowed(
  list,
  computed(() => props.tree),
  (entry) => entry.row.id,
  36,
);
const dragged = ref('');
/** The row that was moved by keys; it keeps the focus where it goes. */
let moved = '';
const over = ref<{ id: string; inside: boolean } | null>(null);
const steps: Record<string, Direction> = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' };
const focusable = computed(() =>
  props.tree.some((e) => e.row.id === props.selected) ? props.selected : props.tree[0]?.row.id,
);

// A link may choose a taxon far down.
watch(
  () => [props.selected, list.value],
  async () => {
    await nextTick();
    await reveal(props.tree.findIndex((entry) => entry.row.id === props.selected));
  },
);

watch(
  () => props.tree,
  () => {
    const at = props.tree.findIndex((entry) => entry.row.id === moved);
    void focus(at);
    moved = '';
  },
  { flush: 'post' },
);

/** At once where it stands in the page, so that no key of a quick run is lost. */
async function focus(index: number) {
  const there = Math.min(index, props.tree.length - 1);
  list.value?.querySelector<HTMLElement>(`[data-index="${there}"]`)?.focus({ preventScroll: true });
  (await reveal(there))?.focus();
}

function keydown(event: KeyboardEvent, index: number) {
  const entry = props.tree[index];
  const direction = steps[event.key];
  if (!entry) return;
  if (event.altKey && direction) {
    event.preventDefault();
    const to = props.editable ? step(props.tree, entry.row.id, direction) : undefined;
    if (to) {
      moved = entry.row.id;
      emit('move', entry.row.id, to);
    }
  } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
    event.preventDefault();
    void focus(index + (event.key === 'ArrowUp' ? -1 : 1));
  } else if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault();
    emit('select', entry.row.id);
  } else if (event.key === 'Delete' && props.editable) {
    emit('remove', entry.row.id);
  }
}

/** The upper part of a row means before it, the rest within it. */
function dragover(event: DragEvent, id: string) {
  if (!dragged.value || !mayDrop(props.tree, dragged.value, id)) return;
  event.preventDefault();
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  over.value = { id, inside: event.clientY > box.top + box.height * 0.4 };
}

function drop() {
  const target = props.tree.find((entry) => entry.row.id === over.value?.id)?.row;
  if (target && over.value) {
    emit(
      'move',
      dragged.value,
      over.value.inside ? { parent: target.id } : { parent: target.parent ?? undefined, before: target.id },
    );
  }
  dragged.value = '';
  over.value = null;
}
</script>

<template>
  <ul ref="list" class="tree" role="tree" :aria-label="$t('scope.taxa')" :style="padding">
    <li
      v-for="{ item: entry, index: i } in shown"
      :key="entry.row.id"
      :ref="measure"
      :data-index="i"
      role="treeitem"
      :aria-setsize="tree.length"
      :aria-posinset="i + 1"
      :aria-level="entry.depth + 1"
      :aria-selected="entry.row.id === selected"
      :tabindex="entry.row.id === focusable ? 0 : -1"
      :class="[
        `depth-${Math.min(entry.depth, 4)}`,
        {
          selected: entry.row.id === selected,
          before: over?.id === entry.row.id && !over.inside,
          inside: over?.id === entry.row.id && over.inside,
        },
      ]"
      :draggable="editable"
      @click="emit('select', entry.row.id)"
      @keydown="keydown($event, i)"
      @dragstart="dragged = entry.row.id"
      @dragover="dragover($event, entry.row.id)"
      @dragend="((dragged = ''), (over = null))"
      @drop.prevent="drop"
    >
      <span class="who">
        <TaxonName :label="entry.row.label" :stage="entry.row.stage" />
        <span v-if="entry.row.plain && !entry.row.stage" class="quiet">{{ entry.row.plain }}</span>
      </span>
      <span class="quiet rank">{{ entry.row.stage ? $t('scope.stage') : entry.row.rank }}</span>
      <HazardMark :hazard="entry.row.hazard" full />
    </li>
  </ul>
</template>

<style scoped>
.tree {
  list-style: none;
  padding: 0;
  margin: 0.75rem 0 2rem;
}

.tree li {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) 6rem minmax(9rem, 1fr);
  gap: 0.75rem;
  padding: 0.3rem 0.4rem;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}

.tree li:focus-visible {
  outline: 3px solid rgb(var(--v-theme-primary));
  outline-offset: -3px;
}

.selected {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 12%, transparent);
  box-shadow: inset 4px 0 0 rgb(var(--v-theme-primary));
}

.before {
  box-shadow: inset 0 3px 0 rgb(var(--v-theme-primary));
}

.inside {
  outline: 2px dashed rgb(var(--v-theme-primary));
  outline-offset: -2px;
}

.who {
  font-family: var(--serif);
}

.who .quiet {
  font-family: var(--sans);
  font-size: 0.9rem;
  margin-left: 0.5rem;
}

.rank {
  font-size: 0.9rem;
}

.depth-1 .who {
  padding-left: 1.5rem;
}

.depth-2 .who {
  padding-left: 3rem;
}

.depth-3 .who,
.depth-4 .who {
  padding-left: 4.5rem;
}
</style>
