import type { Schemas } from '@/api/client';
import { bodyPlans } from './bodyPlans';

/** The organ that stands for a part of an outline in a study: as the study says, or by its name. */
export function organOf(part: string, parts: readonly Schemas['Part'][], organs: readonly string[]): string {
  const said = parts.find((p) => p.part === part)?.organ;
  if (said) return said;
  if (organs.includes(part)) return part;
  const words = part.split(' ');
  return organs.find((organ) => words.includes(organ)) ?? part;
}

/** Organs that no part of the outline stands for: parts of the study's own, and what is not of one organ. */
export function notDrawn(plan: Schemas['BodyPlan'], organs: readonly string[]): string[] {
  const drawn = new Set((bodyPlans[plan.plan] ?? []).map((p) => organOf(p.part, plan.parts, organs)));
  const own = plan.parts.filter((p) => !p.part).map((p) => p.organ);
  return [...new Set([...own, ...organs])].filter((organ) => organ && !drawn.has(organ));
}
