import type { LocationQueryRaw } from 'vue-router';

/** Readable in an address and allowed there by RFC 3986 (section 3.4), so that it need not be escaped. */
const READABLE: Record<string, string> = { '%2C': ',', '%3A': ':', '%2F': '/', '%40': '@', '%20': '+' };

function escaped(text: string): string {
  return encodeURIComponent(text).replace(/%(?:2C|3A|2F|40|20)/g, (code) => READABLE[code] ?? code);
}

/**
 * The query of an address. The router's own leaves bars, braces and brackets as they are, which servers refuse: a page with
 * a filter on "leaf [upper]" could then not be loaded again.
 */
export function stringifyQuery(query: LocationQueryRaw = {}): string {
  const parts: string[] = [];
  for (const [key, value] of Object.entries(query)) {
    for (const one of Array.isArray(value) ? value : [value]) {
      if (one === undefined) continue;
      parts.push(one === null ? escaped(key) : `${escaped(key)}=${escaped(String(one))}`);
    }
  }
  return parts.join('&');
}
