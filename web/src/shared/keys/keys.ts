/** Keys that do the same on every page of a study, and those of its stages; each has its words in the messages. */
export const EVERYWHERE = ['undo', 'redo', 'palette', 'help'];
export const OF_STAGE: Record<string, string[]> = {
  scope: ['treeArrows', 'treeEnter', 'treeMove', 'treeDelete'],
  score: [
    'arrows',
    'type',
    'typing',
    'enter',
    'tab',
    'escape',
    'delete',
    'all',
    'copy',
    'paste',
    'fill',
    'find',
    'menu',
  ],
  apart: ['pairArrows', 'pairNext', 'pairEnter', 'pairZoom'],
};
