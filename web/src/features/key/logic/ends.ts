import type { Schemas } from '@/api/client';

/** What an end of a key is called: a group at which it stops bears its own name. */
export const endsOf = (terminal: Schemas['TerminalView']) => (terminal.group ? [terminal.group] : terminal.names);

/** What belongs to the group at which a key stops, as it stands below its name; empty where it does not stop at one. */
export function membersOf(terminal: Schemas['TerminalView']): string {
  const group = terminal.group?.label;
  if (group === undefined) return '';
  return [...new Set(terminal.names.map((n) => (n.label === group && n.stage ? n.stage : n.label)))].join(', ');
}
