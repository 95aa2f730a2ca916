import type { TREATMENTS } from '@/shared/viewing/conditions';
import type { Wish } from './wish';

/** Words of the interface. */
type Translate = {
  (key: string): string;
  (key: string, named: Record<string, unknown>, plural: number): string;
};

/** What a key was made for, as a line of text; without limits it is for everything, all year. */
export function madeFor(wish: Wish, t: Translate): string {
  const parts = [
    wish.months.map((m) => t(`month.${m}`)).join(', '),
    wish.organs.join(', '),
    wish.methods.join(', '),
    wish.magnification ? t('key.upToTimes', { n: wish.magnification }, 1) : '',
    wish.preserved.map((p) => t(`apart.treated.${p satisfies (typeof TREATMENTS)[number]}`)).join(', '),
    wish.stages.join(', '),
    wish.evenWeights ? '' : t('key.common'),
    wish.hazardsFirst ? t('key.hazardsFirst') : '',
    wish.readers ? t(`key.forReaders.${wish.readers}`) : '',
    wish.leads > 2 ? t('key.upToLeads', { n: wish.leads }, wish.leads) : '',
    wish.groups.length ? t('key.stopsAt', { n: wish.groups.length }, wish.groups.length) : '',
    wish.taxa.length ? t('key.someTaxa', { n: wish.taxa.length }, wish.taxa.length) : '',
  ].filter(Boolean);
  return parts.length ? parts.join('; ') : t('key.everything');
}
