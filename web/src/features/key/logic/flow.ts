import type { Schemas } from '@/api/client';
import { isDangerous } from '@/shared/taxon/hazards';
import { endsOf } from './ends';

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

/** From one couplet to the next, where there is room for it. */
const STEP = 60;
const LEAST_STEP = 24;
const MARGIN = 18;
const GAP = 6;
/** Width of a letter, generously. */
const LETTER = 7;
export const SLOT = 19;
const BAR = 7;

const anyDangerous = (names: Schemas['NameView'][]) => names.some((n) => isDangerous(n.hazard));

/** What stands at the end of a lead; of several names one, a dangerous one if there is any, and how many more. */
export function labelOf(names: Schemas['NameView'][]): string {
  const danger = names.find((n) => isDangerous(n.hazard));
  const name = danger ?? names[0];
  if (!name) return '';
  const whole = (danger ? '⚠ ' : '') + name.label + (name.stage ? `, ${name.stage}` : '');
  return names.length > 1 ? `${whole} +${names.length - 1}` : whole;
}

/** Where a name ends that begins at a stop. */
const endOf = (stop: Stop) => stop.x + GAP + LETTER * labelOf(stop.names).length;

/** The key as a river that fits the room as far as it can: its steps are shorter where names would not have place. */
export function flowIn(key: KeyView, room: number): Flow {
  const wide = flowOf(key, STEP);
  const steps = wide.stops.map((stop) => {
    const depth = (stop.x - MARGIN) / STEP;
    return (room - (endOf(stop) - depth * STEP)) / depth;
  });
  return flowOf(key, Math.max(LEAST_STEP, Math.min(STEP, ...steps)));
}

/** The key as a river: every terminal takes one slot, and a band is as wide as the terminals it leads to. */
export function flowOf(key: KeyView, step: number): Flow {
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
    const x = depth * step + MARGIN;
    const start = slots;
    let danger = false;
    const children: { laid: Laid; stop: boolean }[] = [];
    for (const lead of couplet?.leads ?? []) {
      if (lead.couplet !== undefined) {
        children.push({ laid: lay(lead.couplet, depth + 1), stop: false });
      } else {
        const names = lead.terminal ? endsOf(lead.terminal) : [];
        const stop = { x: x + step, y: (slots + 0.5) * SLOT, names };
        flow.stops.push(stop);
        flow.width = Math.max(flow.width, endOf(stop));
        children.push({ laid: { from: slots, to: slots + 1, danger: anyDangerous(names) }, stop: true });
        slots += 1;
      }
    }
    for (const { laid } of children) {
      danger ||= laid.danger;
      flow.ribbons.push({
        couplet: number,
        dangerous: laid.danger,
        path: ribbon(x + BAR, x + step, laid.from * SLOT + 1.5, laid.to * SLOT - 1.5),
      });
    }
    flow.knots.push({ couplet: number, x, y: start * SLOT + 1.5, height: (slots - start) * SLOT - 3 });
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
