import type { Schemas } from '@/api/client';

/** What a couplet says, whatever its number and those that it leads to. */
function said(couplet: Schemas['CoupletView']): string {
  const ends = (lead: Schemas['LeadView']) => lead.terminal?.names.map((n) => n.row).sort() ?? [];
  return JSON.stringify(couplet.leads.map((lead) => [lead.text, ends(lead)]));
}

/** Numbers of the couplets of a key that another one does not have. */
export function onlyIn(key: Schemas['KeyView'], other: Schemas['KeyView']): Set<number> {
  const known = new Set(other.couplets.map(said));
  return new Set(key.couplets.filter((c) => !known.has(said(c))).map((c) => c.number));
}
