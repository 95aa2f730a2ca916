import type { Schemas } from '@/api/client';

type Row = Pick<Schemas['StudyRow'], 'id' | 'label' | 'stage'>;

/** A row as a line of text names it: its taxon, then its sex or stage. */
export const rowName = (row: Pick<Row, 'label' | 'stage'>) => (row.stage ? `${row.label}, ${row.stage}` : row.label);

/** Rows to choose from. */
export const rowChoices = (rows: Row[] = []) => rows.map((row) => ({ value: row.id, title: rowName(row) }));
