import { useResizeObserver } from '@vueuse/core';
import { computed, onScopeDispose, ref, watch, type Ref } from 'vue';
import {
  fit,
  moved,
  onPicture,
  onScreen,
  shown,
  within,
  zoomed,
  type Point,
  type Size,
  type Viewport,
} from '../logic/viewport';
import { usePictureLevels } from './usePictureLevels';

/** What is shown: a picture, its thumbnail, and its size in pixels. */
export interface Shown extends Size {
  src: string;
  small: string;
}

export type View = ReturnType<typeof useView>;

/** How a picture lies on the bench, and the canvases that show it: that of the bench, and others that look at a point of it. */
export function useView(picture: () => Shown, bench: Ref<HTMLElement | null>, canvas: Ref<HTMLCanvasElement | null>) {
  const size = ref<Size>({ width: 600, height: 400 });
  const view = ref<Viewport>({ scale: 1, left: 0, top: 0 });
  const pixels = computed<Size>(() => ({ width: picture().width, height: picture().height }));
  const { levels, failed, levelFor } = usePictureLevels(
    () => picture().src,
    () => picture().small,
    () => picture().width,
  );

  let asked = 0;
  function paint() {
    asked = 0;
    const ratio = window.devicePixelRatio || 1;
    drawOn(canvas.value, levelFor(view.value.scale * ratio)?.bitmap, view.value, size.value);
  }

  /** Only what can be seen is drawn, however large the picture is. */
  function drawOn(on: HTMLCanvasElement | null, bitmap: ImageBitmap | undefined, at: Viewport, area: Size) {
    const pen = on?.getContext('2d');
    if (!on || !pen) return;
    const ratio = window.devicePixelRatio || 1;
    const [width, height] = [Math.round(area.width * ratio), Math.round(area.height * ratio)];
    if (on.width !== width || on.height !== height) Object.assign(on, { width, height });
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    pen.clearRect(0, 0, area.width, area.height);
    if (!bitmap) return;
    const from = within(onPicture(at, { x: 0, y: 0 }), pixels.value);
    const to = within(onPicture(at, { x: area.width, y: area.height }), pixels.value);
    const place = onScreen(at, from);
    // Thumbnails are smaller, and drawings are decoded in their own pixels.
    const own = bitmap.width / pixels.value.width;
    const [across, down] = [to.x - from.x, to.y - from.y];
    pen.imageSmoothingEnabled = at.scale < 3;
    pen.drawImage(
      bitmap,
      from.x * own,
      from.y * own,
      across * own,
      down * own,
      place.x,
      place.y,
      across * at.scale,
      down * at.scale,
    );
  }

  watch(
    [view, size, levels],
    () => {
      if (!asked) asked = requestAnimationFrame(paint);
    },
    { deep: true },
  );

  const fitAll = () => (view.value = fit(pixels.value, size.value));
  watch(() => [picture().src, picture().width], fitAll);

  useResizeObserver(bench, ([entry]) => {
    if (!entry) return;
    size.value = { width: entry.contentRect.width, height: entry.contentRect.height };
    fitAll();
  });
  onScopeDispose(() => cancelAnimationFrame(asked));

  return {
    view,
    size,
    pixels,
    levels,
    failed,
    fitAll,
    /** Draws the surroundings of a point, so many times as large, into another canvas. */
    lookAt: (on: HTMLCanvasElement | null, point: Point, zoom: number, side: number) =>
      drawOn(
        on,
        levels.value[0]?.bitmap,
        { scale: zoom, left: side / 2 - point.x * zoom, top: side / 2 - point.y * zoom },
        { width: side, height: side },
      ),
    zoomAt: (factor: number, at: Point) => (view.value = zoomed(view.value, factor, at, pixels.value, size.value)),
    moveBy: (dx: number, dy: number) => (view.value = moved(view.value, dx, dy, pixels.value, size.value)),
    reveal: (point: Point) => (view.value = shown(view.value, point, pixels.value, size.value)),
    toScreen: (point: Point) => onScreen(view.value, point),
    toPicture: (point: Point) => within(onPicture(view.value, point), pixels.value),
    inside: (point: Point) => within(point, pixels.value),
  };
}
