import { computed, ref, watch, type Ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import type { Point } from '../logic/viewport';

/** Setting the scale of a picture: the ends of its bar are placed, then what the bar says is kept. */
export function useScaling(
  picture: Readonly<Ref<Schemas['Picture'] | undefined>>,
  run: (action: () => Promise<void>) => Promise<boolean>,
) {
  const model = useStudy();
  const { t } = useI18n();
  /** Whether the ends of the scale bar are placed, and those that were. */
  const scaling = ref(false);
  const ends = ref<[Point, Point] | null>(null);

  function close() {
    scaling.value = false;
    ends.value = null;
  }
  watch(picture, close);

  function begin() {
    scaling.value = true;
    ends.value = null;
  }

  async function save(scale: Schemas['Scale'] | undefined) {
    const on = picture.value;
    if (!on || !scale) return;
    const done = await run(async () => {
      const baseRevision = model.baseRevision(`picture/${on.id}`);
      const body = { picture: { ...on, scale }, baseRevision };
      await api.put('/api/v1/studies/{slug}/pictures', { slug: model.slug }, body);
      await model.reload();
    });
    if (done) close();
  }

  /** What the button of the scale says. */
  const said = computed(() => {
    const scale = picture.value?.scale;
    if (!scale) return t('measure.scale.none');
    const shared = model.study.value?.pictures.find((p) => p.id === scale.like)?.scale?.name;
    return shared
      ? t('measure.scale.shared', { name: shared })
      : t('measure.scale.change', { length: scale.length ?? '' });
  });

  return { scaling, ends, begin, save, said };
}
