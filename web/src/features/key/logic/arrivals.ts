import type { Schemas } from '@/api/client';

/** Ids of the rows that are named at or below each lead of a couplet, in the order of the key. */
export function rowsByLead(key: Schemas['KeyView'], couplet: Schemas['CoupletView']): string[][] {
  const byNumber = new Map(key.couplets.map((c) => [c.number, c]));
  const below = (lead: Schemas['LeadView']): string[] => {
    const next = lead.couplet === undefined ? undefined : byNumber.get(lead.couplet);
    return next ? next.leads.flatMap(below) : (lead.terminal?.names.map((n) => n.row) ?? []);
  };
  return couplet.leads.map((lead) => [...new Set(below(lead))]);
}
