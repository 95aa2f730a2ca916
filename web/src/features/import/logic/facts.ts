const FACTS = ['#hazard', '#weight', '#present'] as const;

/** Heading of a column as people call it: what describes taxa has a name of its own. */
export function factOf(t: (key: string) => string, heading: string): string {
  return (FACTS as readonly string[]).includes(heading) ? t(`import.factOf.${heading}`) : heading;
}
