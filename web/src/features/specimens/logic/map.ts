import { geoGraticule, geoMercator, geoPath, type GeoProjection } from 'd3-geo';
import { feature } from 'topojson-client';
import type { Topology } from 'topojson-specification';
import land from 'world-atlas/land-110m.json';

export interface Found {
  latitude: number;
  longitude: number;
}

/** Coasts of the whole world (Natural Earth, 1:110 million), and lines of latitude and longitude: nothing is loaded from outside. */
const world = land as unknown as Topology;
const coasts = feature(world, world.objects.land as never);

/** Degrees that a map shows at least; nearer by, a label's coordinates say no more. */
const LEAST_DEGREES = 0.02;

/** A projection in which all places lie on the map, with some room around. */
export function projectionFor(places: Found[], width: number, height: number, far: number): GeoProjection {
  const longitudes = places.map((p) => p.longitude);
  const latitudes = places.map((p) => p.latitude);
  const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  const extent = (values: number[]) => Math.max(...values) - Math.min(...values);
  const center: [number, number] = places.length ? [middle(longitudes), middle(latitudes)] : [0, 20];
  // Away from the equator a degree of latitude is drawn longer than one of longitude.
  const longer = 1 / Math.cos(((center[1] ?? 0) * Math.PI) / 180);
  const degrees = places.length
    ? Math.max(LEAST_DEGREES, extent(longitudes), (extent(latitudes) * width * longer) / height) * 1.3 * far
    : 360;
  return geoMercator()
    .center(center)
    .scale((width / Math.min(360, degrees)) * (180 / Math.PI))
    .translate([width / 2, height / 2])
    .clipExtent([
      [0, 0],
      [width, height],
    ]);
}

/** A step of round degrees, of which some four fit. */
export function stepFor(degrees: number): number {
  const rough = degrees / 4;
  const steps = [30, 10, 5, 2, 1, 0.5, 0.2, 0.1, 0.05, 0.02, 0.01, 0.005, 0.002, 0.001];
  return steps.find((s) => s <= rough) ?? 0.001;
}

export function drawn(projection: GeoProjection, width: number, height: number) {
  const path = geoPath(projection);
  const [west = -180] = projection.invert?.([0, height / 2]) ?? [];
  const [east = 180] = projection.invert?.([width, height / 2]) ?? [];
  const [, north = 80] = projection.invert?.([width / 2, 0]) ?? [];
  const [, south = -80] = projection.invert?.([width / 2, height]) ?? [];
  const step = stepFor(east - west);
  const from = (value: number) => Math.ceil(value / step) * step;
  const lines = geoGraticule()
    .stepMinor([step, step])
    .extentMinor([
      [Math.max(-180, from(west) - step), Math.max(-85, from(south) - step)],
      [Math.min(180, east + step), Math.min(85, north + step)],
    ]);
  const digits = Math.max(0, -Math.floor(Math.log10(step)));
  const degrees = (value: number, [plus, minus]: [string, string]) =>
    `${Math.abs(value).toFixed(digits)}°${value === 0 ? '' : value > 0 ? plus : minus}`;
  const range = (low: number, high: number) =>
    Array.from({ length: Math.max(0, Math.floor((high - from(low)) / step) + 1) }, (_, i) => from(low) + i * step);
  return {
    coasts: path(coasts) ?? '',
    graticule: path(lines()) ?? '',
    longitudes: range(west, east).map((at) => ({
      x: projection([at, (north + south) / 2])?.[0] ?? 0,
      text: degrees(at, ['E', 'W']),
    })),
    latitudes: range(south, north).map((at) => ({
      y: projection([(east + west) / 2, at])?.[1] ?? 0,
      text: degrees(at, ['N', 'S']),
    })),
    /** Width of the map in kilometres at its middle. */
    kilometres: ((east - west) * Math.PI * 6371.0088 * Math.cos((((north + south) / 2) * Math.PI) / 180)) / 180,
  };
}
