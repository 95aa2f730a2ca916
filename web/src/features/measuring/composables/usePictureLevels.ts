import { ref, shallowRef, watch } from 'vue';

/** One version of a picture, so many times smaller than it is. */
export interface Level {
  bitmap: ImageBitmap;
  scale: number;
}

/** A picture of more pixels than these is drawn from smaller versions where it is seen from afar. */
const LARGE = 3_000_000;
const SMALL_SIDE = 1600;

/**
 * Loads a picture for a bench that zooms: its thumbnail first, so that there is something to see, then the picture itself,
 * decoded once, and of a large one a smaller version beside it.
 *
 * @param width of the picture in pixels, which drawings do not have of themselves
 */
export function usePictureLevels(src: () => string, small: () => string, width: () => number) {
  const levels = shallowRef<Level[]>([]);
  const failed = ref(false);
  let asked = 0;

  async function load(address: string) {
    const mine = ++asked;
    levels.value = [];
    failed.value = false;
    try {
      const whole = fetched(address);
      const first = await fetched(small()).catch(() => undefined);
      if (mine !== asked) return;
      if (first) levels.value = [{ bitmap: first, scale: first.width / width() }];
      const full = await whole;
      if (mine !== asked) return;
      levels.value = [{ bitmap: full, scale: 1 }];
      const longest = Math.max(full.width, full.height);
      if (full.width * full.height > LARGE) {
        const scale = SMALL_SIDE / longest;
        const small = await createImageBitmap(full, {
          resizeWidth: Math.round(full.width * scale),
          resizeHeight: Math.round(full.height * scale),
          resizeQuality: 'medium',
        });
        if (mine === asked) levels.value = [...levels.value, { bitmap: small, scale }];
      }
    } catch {
      if (mine === asked) failed.value = true;
    }
  }

  watch(src, (address) => address && void load(address), { immediate: true });

  /** The smallest version that shows all that can be seen. */
  function levelFor(scale: number): Level | undefined {
    return [...levels.value].sort((a, b) => a.scale - b.scale).find((l) => l.scale >= scale) ?? levels.value[0];
  }

  return { levels, failed, levelFor };
}

async function fetched(address: string): Promise<ImageBitmap> {
  return decoded(await (await fetch(address)).blob());
}

/** Drawings have no pixels of their own, and are decoded through an element. */
async function decoded(blob: Blob): Promise<ImageBitmap> {
  if (blob.type !== 'image/svg+xml') return createImageBitmap(blob);
  const image = new Image();
  const url = `data:image/svg+xml;base64,${btoa(unescape(encodeURIComponent(await blob.text())))}`;
  image.src = url;
  await image.decode();
  return createImageBitmap(image);
}
