import { parseQuery } from 'vue-router';
import { describe, expect, it } from 'vitest';
import { stringifyQuery } from './query';

describe('the query of an address', () => {
  it('holds nothing but what RFC 3986 allows there, and reads back', () => {
    const nasty = { organs: 'leaf|stem [upper]', q: '{a}^`"<b>\\ c+d & e=f#g', none: '', list: ['a,b', 'ü'] };
    const text = stringifyQuery(nasty);
    expect(text).toMatch(/^[A-Za-z0-9\-._~!$&'()*+,;=:@/?%]*$/);
    expect(parseQuery(text)).toEqual(nasty);
  });

  it('leaves out what is not set', () => {
    expect(stringifyQuery({ a: undefined, b: '1', c: null })).toBe('b=1&c');
  });
});
