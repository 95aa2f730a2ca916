import { inject, provide, type InjectionKey } from 'vue';
import type { Schemas } from '@/api/client';

/** How a picture of a study or of an edition is drawn. */
export interface Shown {
  src: string;
  small: string;
  shows: string;
  credit: string;
}

export type Pictures = (id: string) => Shown | undefined;

const KEY: InjectionKey<Pictures> = Symbol('pictures');

/** Tells everything below where the pictures of a study or an edition are. */
export function providePictures(base: () => string, all: () => readonly Schemas['Picture'][] | undefined): Pictures {
  const pictures: Pictures = (id) => {
    const picture = id ? all()?.find((p) => p.id === id) : undefined;
    return (
      picture && { ...picture, src: `${base()}/${picture.content}`, small: `${base()}/${picture.content}?small=true` }
    );
  };
  provide(KEY, pictures);
  return pictures;
}

export const usePictures = (): Pictures => inject(KEY, () => undefined);
