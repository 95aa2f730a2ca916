export interface Point {
  x: number;
  y: number;
}

/** Where a picture lies on the screen: its pixel (x, y) is at (x * scale + left, y * scale + top). */
export interface Viewport {
  scale: number;
  left: number;
  top: number;
}

export interface Size {
  width: number;
  height: number;
}

/** A picture's pixel is at most as large as so many of the screen's. */
const CLOSEST = 24;

export const onScreen = (view: Viewport, point: Point): Point => ({
  x: point.x * view.scale + view.left,
  y: point.y * view.scale + view.top,
});

export const onPicture = (view: Viewport, point: Point): Point => ({
  x: (point.x - view.left) / view.scale,
  y: (point.y - view.top) / view.scale,
});

/** The whole picture, in the middle of the bench. */
export function fit(picture: Size, bench: Size): Viewport {
  const scale = Math.min(bench.width / picture.width, bench.height / picture.height);
  return {
    scale,
    left: (bench.width - picture.width * scale) / 2,
    top: (bench.height - picture.height * scale) / 2,
  };
}

/** Nearer or farther, while what is at a place on the screen stays there. Never smaller than half the bench. */
export function zoomed(view: Viewport, factor: number, at: Point, picture: Size, bench: Size): Viewport {
  const least = fit(picture, bench).scale / 2;
  const scale = Math.max(least, Math.min(CLOSEST, view.scale * factor));
  const fixed = onPicture(view, at);
  return kept({ scale, left: at.x - fixed.x * scale, top: at.y - fixed.y * scale }, picture, bench);
}

/** Moved, but never so far that nothing of the picture is left at the middle of the bench. */
export function moved(view: Viewport, dx: number, dy: number, picture: Size, bench: Size): Viewport {
  return kept({ ...view, left: view.left + dx, top: view.top + dy }, picture, bench);
}

function kept(view: Viewport, picture: Size, bench: Size): Viewport {
  const between = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
  return {
    scale: view.scale,
    left: between(view.left, bench.width / 2 - picture.width * view.scale, bench.width / 2),
    top: between(view.top, bench.height / 2 - picture.height * view.scale, bench.height / 2),
  };
}

/** Brings a point of the picture onto the bench if it is not there. */
export function shown(view: Viewport, point: Point, picture: Size, bench: Size): Viewport {
  const margin = 24;
  const at = onScreen(view, point);
  const dx = at.x < margin ? margin - at.x : at.x > bench.width - margin ? bench.width - margin - at.x : 0;
  const dy = at.y < margin ? margin - at.y : at.y > bench.height - margin ? bench.height - margin - at.y : 0;
  return dx || dy ? moved(view, dx, dy, picture, bench) : view;
}

/** A place within the picture. */
export const within = (point: Point, picture: Size): Point => ({
  x: Math.max(0, Math.min(picture.width, point.x)),
  y: Math.max(0, Math.min(picture.height, point.y)),
});
