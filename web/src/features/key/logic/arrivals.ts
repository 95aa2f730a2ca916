import type { Schemas } from '@/api/client';

type KeyView = Schemas['KeyView'];

/** The couplets of a key by number. */
export const numbered = (key: KeyView) => new Map(key.couplets.map((c) => [c.number, c]));

/** What a key calls its leads. */
export const letterOf = (lead: number) => 'abcdefgh'[lead] ?? String(lead + 1);

/** The names at or below a lead, in the order of the key; one that stands at several ends is there as often. */
export function namesBelow(byNumber: ReturnType<typeof numbered>, lead: Schemas['LeadView']): Schemas['NameView'][] {
  const next = lead.couplet === undefined ? undefined : byNumber.get(lead.couplet);
  return next ? next.leads.flatMap((l) => namesBelow(byNumber, l)) : (lead.terminal?.names ?? []);
}

/** Ids of the rows that are named at or below each lead of a couplet, in the order of the key. */
export function rowsByLead(key: KeyView, couplet: Schemas['CoupletView']): string[][] {
  const byNumber = numbered(key);
  return couplet.leads.map((lead) => [...new Set(namesBelow(byNumber, lead).map((n) => n.row))]);
}
