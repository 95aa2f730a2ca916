const UPRIGHT = /(\s*(?:subsp\.|var\.|f\.|×|cf\.|aff\.|s\.l\.|s\.str\.|agg\.|species|Group)\s*)/;

/** Splits a name into parts that stand in italics and parts that do not. */
export function nameParts(label: string): { text: string; italic: boolean }[] {
  return label
    .split(UPRIGHT)
    .filter((text) => text !== '')
    .map((text) => ({ text, italic: !UPRIGHT.test(text) }));
}
