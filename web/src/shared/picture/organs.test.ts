import { describe, expect, it } from 'vitest';
import { bodyPlans } from './bodyPlans';
import { notDrawn, organOf } from './organs';

describe('organs of an outline', () => {
  it('are what the study calls a part, then what is called alike', () => {
    const organs = ['leaf', 'stem', 'smell'];
    expect(organOf('lower leaf', [], organs)).toBe('leaf');
    expect(organOf('stem', [], organs)).toBe('stem');
    expect(organOf('flower', [], organs)).toBe('flower');
    expect(organOf('stem', [{ part: 'stem', organ: 'culm' }], organs)).toBe('culm');
  });

  it('leave what is not drawn to a list', () => {
    const plan = { plan: 'plant', parts: [{ part: '', organ: 'tuber' }] };
    expect(notDrawn(plan, ['leaf', 'smell'])).toEqual(['tuber', 'smell']);
    expect(notDrawn({ plan: '', parts: [] }, ['leaf'])).toEqual(['leaf']);
  });

  it('are drawn in seven kinds, each part once and within its field', () => {
    expect(Object.keys(bodyPlans)).toEqual(['plant', 'mushroom', 'crab', 'fish', 'insect', 'snake', 'shell', 'empty']);
    for (const parts of Object.values(bodyPlans)) {
      expect(new Set(parts.map((p) => p.part)).size).toBe(parts.length);
      for (const { shapes, at } of parts) {
        expect(shapes.length).toBeGreaterThan(0);
        const numbers =
          shapes
            .join(' ')
            .match(/-?\d+(\.\d+)?/g)
            ?.map(Number) ?? [];
        expect(Math.max(...numbers)).toBeLessThanOrEqual(300);
        expect(Math.min(...numbers)).toBeGreaterThanOrEqual(-5);
        expect(at[0]).toBeLessThan(300);
      }
    }
  });
});
