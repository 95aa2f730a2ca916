import type { Schemas } from '@/api/client';

export interface Line {
  organ: string;
  character: string;
  shows: string;
}

/** What a row shows, character by character; an empty cell shows what its parent does. */
export function description(study: Schemas['Study'], rowId: string): Line[] {
  const scores = new Map(study.scores.map((s) => [`${s.row} ${s.character}`, s.typed]));
  const rows = new Map(study.rows.map((r) => [r.id, r]));
  const lines: Line[] = [];
  for (const character of study.characters) {
    let at = rows.get(rowId);
    let shows: string | undefined;
    for (let steps = 0; at && shows === undefined && steps <= rows.size; steps++) {
      shows = scores.get(`${at.id} ${character.id}`);
      at = at.parent ? rows.get(at.parent) : undefined;
    }
    if (shows !== undefined && shows !== '?' && shows !== 'n/a') {
      const unit = character.unit && /\d$|\)$/.test(shows) ? ` ${character.unit}` : '';
      lines.push({ organ: character.organ, character: character.label, shows: shows + unit });
    }
  }
  return lines;
}
