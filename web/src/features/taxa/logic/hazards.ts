import type { Schemas } from '@/api/client';

export type Severity = Schemas['StudyRow']['hazard'];

/** What is known of harm where nothing in particular is recorded, and the severities of what is. */
export const KNOWLEDGE: Severity[] = ['NOT_ASSESSED', 'NONE_KNOWN', 'CAUTION', 'SERIOUS', 'LIFE_THREATENING'];
export const SEVERITIES: Severity[] = ['CAUTION', 'SERIOUS', 'LIFE_THREATENING'];

export const KINDS = [
  'poisonous if eaten',
  'irritant sap',
  'caustic sap',
  'phototoxic sap',
  'allergenic',
  'urticating hairs',
  'hazardous smoke or dust',
  'thorns',
  'venom',
  'bite',
  'sting',
  'carries disease',
  'harmful to children or animals',
];
export const ROUTES = ['eating', 'skin', 'eyes', 'breathing'];

export const RANKS = [
  'family',
  'subfamily',
  'tribe',
  'genus',
  'subgenus',
  'section',
  'species complex',
  'aggregate',
  'species',
  'subspecies',
  'variety',
  'forma',
  'nothotaxon',
  'cultivar',
  'Group',
];

/** What a taxon is in a region; others may be written. Places of protected, regulated and quarantine taxa are not told. */
export const STATUS = [
  'native',
  'introduced',
  'naturalised',
  'casual',
  'invasive',
  'extinct',
  'protected',
  'regulated',
  'quarantine',
];
