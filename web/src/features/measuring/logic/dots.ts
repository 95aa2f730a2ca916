/** Where dots of a strip lie: along the scale by value, stacked where they would cover each other. */
export interface Dot<T> {
  of: T;
  x: number;
  level: number;
}

export interface Domain {
  low: number;
  high: number;
}

/** From a round number below all values to one above, with round steps between. */
export function domainOf(values: number[]): Domain & { ticks: number[] } {
  const least = Math.min(...values);
  const most = Math.max(...values);
  const width = most - least || Math.abs(most) || 1;
  const rough = width / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = ([1, 2, 5, 10].find((n) => n * power >= rough) ?? 10) * power;
  const low = Math.max(0, Math.floor(least / step) * step);
  const high = Math.ceil((most + width * 0.02) / step) * step;
  const ticks = Array.from({ length: Math.round((high - low) / step) + 1 }, (_, i) =>
    Number((low + i * step).toPrecision(10)),
  );
  return { low, high, ticks };
}

/** @param size of a dot, in the unit of {@code width} */
export function stacked<T>(
  all: T[],
  value: (of: T) => number,
  domain: Domain,
  width: number,
  size: number,
  most = 6,
): Dot<T>[] {
  const sorted = [...all].sort((a, b) => value(a) - value(b));
  const ends: number[] = [];
  return sorted.map((of) => {
    const x = ((value(of) - domain.low) / (domain.high - domain.low || 1)) * width;
    let level = ends.findIndex((end) => x - end >= size);
    if (level < 0) level = ends.length < most ? ends.length : (sorted.indexOf(of) * 7) % most;
    ends[level] = x;
    return { of, x, level };
  });
}
