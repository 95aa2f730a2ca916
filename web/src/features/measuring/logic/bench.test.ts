import { describe, expect, it } from 'vitest';
import { domainOf, stacked } from './dots';
import { nextItem, spread } from './marks';
import { fit, moved, onPicture, onScreen, shown, zoomed } from './viewport';

const picture = { width: 6000, height: 4000 };
const bench = { width: 600, height: 500 };

describe('viewport', () => {
  it('shows the whole picture first', () => {
    const view = fit(picture, bench);
    expect(onScreen(view, { x: 0, y: 0 })).toEqual({ x: 0, y: 50 });
    expect(onScreen(view, { x: 6000, y: 4000 })).toEqual({ x: 600, y: 450 });
  });

  it('keeps what is under the pointer there while it zooms', () => {
    const at = { x: 420, y: 130 };
    let view = fit(picture, bench);
    const under = onPicture(view, at);
    for (const factor of [1.4, 3, 0.7, 2.2]) view = zoomed(view, factor, at, picture, bench);
    expect(onPicture(view, at).x).toBeCloseTo(under.x, 6);
    expect(onPicture(view, at).y).toBeCloseTo(under.y, 6);
  });

  it('never loses the picture, and brings a point back onto the bench', () => {
    const view = moved(zoomed(fit(picture, bench), 10, { x: 300, y: 250 }, picture, bench), 1e6, -1e6, picture, bench);
    const middle = onPicture(view, { x: 300, y: 250 });
    expect(middle.x).toBeGreaterThanOrEqual(0);
    expect(middle.y).toBeLessThanOrEqual(4000);
    const seen = onScreen(shown(view, { x: 5000, y: 100 }, picture, bench), { x: 5000, y: 100 });
    expect(seen.x).toBeLessThanOrEqual(600);
    expect(seen.y).toBeGreaterThanOrEqual(0);
  });
});

describe('words of readings', () => {
  it('counts items on', () => {
    expect(nextItem('spore 9')).toBe('spore 10');
    expect(nextItem('upper leaf')).toBe('upper leaf');
  });

  it('tells two standard uncertainties to two digits', () => {
    expect(spread(0.0263)).toBe('0.053');
    expect(spread(1.04)).toBe('2.1');
    expect(spread(0)).toBe('');
  });
});

describe('dots', () => {
  it('lie on a round scale that holds them all', () => {
    const domain = domainOf([31.2, 58.1, 44]);
    expect(domain.low).toBeLessThanOrEqual(31.2);
    expect(domain.high).toBeGreaterThan(58.1);
    expect(domain.ticks.every((t) => Number.isInteger(t / 5))).toBe(true);
  });

  it('are stacked where they would cover each other', () => {
    const dots = stacked([5, 5, 5.01, 9], (v) => v, { low: 0, high: 10 }, 100, 6);
    expect(dots.map((d) => d.level)).toEqual([0, 1, 2, 0]);
  });
});
