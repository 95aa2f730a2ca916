import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import type { StudyModel } from '@/study-kernel';

/** What one's own changes were, in words, and the ways to take them back one after the other. */
export function useUndo(model: StudyModel, enabled: () => boolean) {
  const { t } = useI18n();
  const query = useQuery({
    queryKey: computed(() => ['undo', model.slug, model.study.value?.revision]),
    queryFn: () => api.get('/api/v1/studies/{slug}/undo', { slug: model.slug }),
    enabled: computed(() => enabled() && model.study.value !== undefined),
    placeholderData: (old) => old,
    retry: false,
  });

  const say = (waiting: Schemas['Waiting']) =>
    waiting.done.map((done) => doneWords(t, done)).join('; ') || t('undo.nothing');

  const undoable = computed(() => (query.data.value?.undo ?? []).map((w) => ({ id: w.id, at: w.at, says: say(w) })));
  const redoable = computed(() => (query.data.value?.redo ?? []).map((w) => ({ id: w.id, at: w.at, says: say(w) })));

  /** Takes back the newest changes, down to the one that was chosen. */
  async function undoTo(id: number) {
    const times = undoable.value.findIndex((u) => u.id === id) + 1;
    for (let k = 0; k < times; k++) await model.undo();
  }

  return { undoable, redoable, undoTo };
}

/** What the latest undo or redo did, as a sentence; empty if there was none. */
export function useReversed(model: StudyModel) {
  const { t } = useI18n();
  return computed(() => {
    const now = model.reversed.value;
    if (!now) return '';
    const what = now.done.map((done) => doneWords(t, done)).join('; ');
    const passed = now.passed.map((p) => (p.who ? `${p.name} (${p.who})` : t('undo.builtUpon', { name: p.name })));
    const left = [...passed, ...(now.more ? [t('undo.more', now.more)] : [])].join('; ');
    return [what ? t(`undo.did.${now.what}`, { what }) : t('undo.didNothing'), left ? t('undo.left', { left }) : '']
      .filter(Boolean)
      .join(' ');
  });
}

function doneWords(t: ReturnType<typeof useI18n>['t'], done: Schemas['Done']): string {
  return t(`undo.how.${done.how}`, {
    what: t(`undo.kind.${done.kind}`, { n: done.count, name: done.name }, done.count),
  });
}
