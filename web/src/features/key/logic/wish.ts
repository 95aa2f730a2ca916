import { asText } from '@/shared/ui/asText';
import type { LocationQuery, LocationQueryRaw } from 'vue-router';
import type { Schemas } from '@/api/client';
import { EVERYTHING, fromQuery, toQuery, type ViewingConditions } from '@/shared/viewing/conditions';

export type Wish = Schemas['KeyRequest'];

/** Couplets have two leads unless more are wished. */
export const MOST_LEADS = 8;
/** No microscope magnifies more. */
const MOST_TIMES = 999_999;
export const READERS = ['TRAINED', 'NOVICE'] as const;

const listed = (value: unknown) => asText(value).split(',').filter(Boolean);

/** What key an address asks for. */
export function wishOf(query: LocationQuery): Wish {
  const seen = fromQuery(query);
  return {
    objective: (asText(query.objective) || 'CAUTIOUS') as Wish['objective'],
    evenWeights: query.common !== 'true',
    months: seen.months,
    organs: seen.organs,
    methods: seen.methods,
    preserved: seen.preserved as Wish['preserved'],
    taxa: listed(query.taxa),
    forbidden: listed(query.forbidden),
    hazardsFirst: query.hazards === 'first',
    questions: asText(query.ask).split(BETWEEN).filter(Boolean).map(questionIn),
    stages: seen.stages,
    groups: listed(query.stop),
    leads: Math.min(MOST_LEADS, Math.max(2, Math.floor(Number(query.leads)) || 2)),
    magnification: Math.min(MOST_TIMES, Math.max(0, Math.floor(Number(query.times)) || 0)),
    readers: READERS.find((r) => r === query.readers),
  };
}

type Question = Wish['questions'][number];

const BETWEEN = '|';

/** A question in an address: its character, and the rows in play where it is asked, if these are not all. */
function questionIn(text: string): Question {
  const [character = '', rows = ''] = text.split('~');
  return { character, rows: rows.split('+').filter(Boolean) };
}

const inAddress = (question: Question) => [question.character, question.rows.join('+')].filter(Boolean).join('~');

/** The address of a key; what is not limited does not stand in it. */
export function addressOf(wish: Wish): LocationQueryRaw {
  return {
    ...toQuery(seenBy(wish)),
    objective: wish.objective === 'CAUTIOUS' ? undefined : wish.objective,
    common: wish.evenWeights ? undefined : 'true',
    taxa: wish.taxa.join(',') || undefined,
    forbidden: wish.forbidden.join(',') || undefined,
    hazards: wish.hazardsFirst ? 'first' : undefined,
    ask: wish.questions.map(inAddress).join(BETWEEN) || undefined,
    stop: wish.groups.join(',') || undefined,
    leads: wish.leads > 2 ? String(wish.leads) : undefined,
    readers: wish.readers,
    times: wish.magnification ? String(wish.magnification) : undefined,
  };
}

/** What those who use a key can see. */
export function seenBy(wish: Wish): ViewingConditions {
  const { months, organs, methods, preserved, stages } = wish;
  return { ...EVERYTHING, months, organs, methods, preserved, stages };
}
