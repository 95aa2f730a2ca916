import type { Schemas } from '@/api/client';
import { isDangerous } from '@/shared/taxon/hazards';

type KeyView = Schemas['KeyView'];

export interface Ribbon {
  couplet: number;
  path: string;
  dangerous: boolean;
}

export interface Stop {
  x: number;
  y: number;
  names: Schemas['NameView'][];
}

export interface Knot {
  couplet: number;
  x: number;
  y: number;
  height: number;
}

export interface Flow {
  width: number;
  height: number;
  ribbons: Ribbon[];
  knots: Knot[];
  stops: Stop[];
}

export const STEP = 60;
export const SLOT = 19;
const BAR = 7;

const anyDangerous = (names: Schemas['NameView'][]) => names.some((n) => isDangerous(n.hazard));

/** The key as a river: every terminal takes one slot, and a band is as wide as the terminals it leads to. */
export function flowOf(key: KeyView): Flow {
  const byNumber = new Map(key.couplets.map((couplet) => [couplet.number, couplet]));
  const flow: Flow = { width: 0, height: 0, ribbons: [], knots: [], stops: [] };
  let slots = 0;

  interface Laid {
    from: number;
    to: number;
    danger: boolean;
  }

  function lay(number: number, depth: number): Laid {
    const couplet = byNumber.get(number);
    const x = depth * STEP + 18;
    const start = slots;
    let danger = false;
    const children: { laid: Laid; stop: boolean }[] = [];
    for (const lead of couplet?.leads ?? []) {
      if (lead.couplet !== undefined) {
        children.push({ laid: lay(lead.couplet, depth + 1), stop: false });
      } else {
        const names = lead.terminal?.names ?? [];
        flow.stops.push({ x: x + STEP, y: (slots + 0.5) * SLOT, names });
        children.push({ laid: { from: slots, to: slots + 1, danger: anyDangerous(names) }, stop: true });
        slots += 1;
      }
    }
    for (const { laid } of children) {
      danger ||= laid.danger;
      flow.ribbons.push({
        couplet: number,
        dangerous: laid.danger,
        path: ribbon(x + BAR, x + STEP, laid.from * SLOT + 1.5, laid.to * SLOT - 1.5),
      });
    }
    flow.knots.push({ couplet: number, x, y: start * SLOT + 1.5, height: (slots - start) * SLOT - 3 });
    flow.width = Math.max(flow.width, x + STEP + 150);
    return { from: start, to: slots, danger };
  }

  const first = key.couplets[0];
  if (first) lay(first.number, 0);
  flow.height = slots * SLOT;
  return flow;
}

function ribbon(x1: number, x2: number, top: number, bottom: number): string {
  const pinch = Math.min(3, (bottom - top) / 4);
  const mid = (x1 + x2) / 2;
  return `M${x1} ${top}C${mid} ${top} ${mid} ${top + pinch} ${x2} ${top + pinch}V${bottom - pinch}C${mid} ${bottom - pinch} ${mid} ${bottom} ${x1} ${bottom}Z`;
}
