const UPRIGHT = /(\s*(?:subsp\.|var\.|f\.|×|cf\.|aff\.|s\.l\.|s\.str\.|agg\.|species|Group)\s*)/;

/** Splits a name into parts that stand in italics and parts that do not; a sex or stage stands behind a comma. */
export function nameParts(label: string): { text: string; italic: boolean }[] {
  const comma = label.indexOf(', ');
  const name = comma < 0 ? label : label.slice(0, comma);
  const parts = name
    .split(UPRIGHT)
    .filter((text) => text !== '')
    .map((text) => ({ text, italic: !UPRIGHT.test(text) }));
  return comma < 0 ? parts : [...parts, { text: label.slice(comma), italic: false }];
}
