import { expect, test } from 'vitest';
import { drawn, projectionFor, stepFor } from './map';

test('all places lie on the map, however far apart', () => {
  for (const places of [
    [{ latitude: 47.3, longitude: -33.2 }],
    [
      { latitude: 47.3, longitude: -33.2 },
      { latitude: 47.9, longitude: -33.1 },
    ],
    [
      { latitude: -60, longitude: -170 },
      { latitude: 65, longitude: 170 },
    ],
  ]) {
    const projection = projectionFor(places, 800, 500, 1);
    for (const place of places) {
      const [x = -1, y = -1] = projection([place.longitude, place.latitude]) ?? [];
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(800);
      expect(y).toBeGreaterThanOrEqual(0);
      expect(y).toBeLessThanOrEqual(500);
    }
  }
});

test('the scale bar and the lines are true', () => {
  const projection = projectionFor([{ latitude: 0, longitude: 0 }], 800, 500, 1000);
  const map = drawn(projection, 800, 500);
  // 0.02 degrees, by 1.3 and by 1000: 26 degrees of the equator, of 111.2 km each.
  expect(map.kilometres).toBeCloseTo(26 * 111.195, -1);
  expect(map.longitudes.map((l) => l.text)).toContain('5°E');
  expect(map.latitudes.map((l) => l.text)).toContain('0°');
  expect(map.coasts.length).toBeGreaterThan(100);
  expect(stepFor(0.05)).toBe(0.01);
});
