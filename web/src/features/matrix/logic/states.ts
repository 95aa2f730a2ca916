/** What is being typed behind the last comma. */
function last(text: string): string {
  return text
    .slice(text.lastIndexOf(',') + 1)
    .trim()
    .toLowerCase();
}

/** States that a text under way may mean: those that begin so first, and none when only the one that stands there is left. */
export function suggested(text: string, states: string[]): string[] {
  const part = last(text);
  const before = text
    .split(',')
    .slice(0, -1)
    .map((s) => s.trim().toLowerCase());
  const open = states.filter((s) => !before.includes(s.toLowerCase()));
  const found = [
    ...open.filter((s) => s.toLowerCase().startsWith(part)),
    ...open.filter((s) => s.toLowerCase().indexOf(part) > 0),
  ];
  return found.length === 1 && found[0]?.toLowerCase() === part ? [] : found;
}

/** The text with what is being typed made a state. */
export function completed(text: string, state: string): string {
  const comma = text.lastIndexOf(',');
  return comma < 0 ? state : `${text.slice(0, comma + 1)} ${state}`;
}
