/** The words of the house, explained. */
export default {
  help: {
    title: 'Help',
    lead: 'What the words used here mean, and what the keys do.',
    words: 'Words',
    keys: 'Keys',
    everywhere: 'Everywhere in a study',
    name: {
      study: 'Study',
      taxon: 'Taxon',
      stage: 'Sex or stage',
      character: 'Character',
      state: 'State',
      score: 'Score',
      inherited: 'Inherited',
      unknown: 'Unknown and not applicable',
      doubt: 'Doubtful',
      source: 'Source',
      apart: 'Tell apart',
      danger: 'Dangerous',
      ruledOut: 'Ruled out',
      gate: 'Gate',
      edition: 'Edition',
      couplet: 'Couplet and lead',
      anyOrder: 'Any-order key',
      outside: 'Near, but outside',
      blind: 'Blind scoring',
      confirm: 'Vouch for a cell',
    },
    means: {
      study: 'One group of lookalikes: its taxa, its characters, what they show, and the keys made from them.',
      taxon:
        'A species, a genus, a subspecies: whatever has a name of its own. One may contain others, as a genus contains species.',
      stage:
        'Males and females, larvae, seedlings, spring shoots: a part of a taxon that looks different. It has a row of its own and shows whatever its taxon shows, unless its own row says otherwise.',
      character:
        'Something to look at or measure: the margin of a leaf, the length of a claw, the months of flowering.',
      state: 'One of the ways in which a character can be: entire, toothed, lobed.',
      score:
        'What a row shows for a character, in a cell of the sheet. A taxon may show several states; a measure is a range.',
      inherited: 'An empty cell shows what the taxon above it shows, in paler ink.',
      unknown:
        '“?” means that nobody knows yet. “n/a” means that the question does not apply, such as the colour of a ring on a mushroom without one.',
      doubt: 'Scored, but not to be relied on: it never rules out anything dangerous.',
      source:
        'What a score comes from: specimens, a reference, the judgement of a scorer, or a table that nobody has checked yet.',
      apart:
        'Two taxa are separated where a character differs and is not likely to be misread. Separated twice, on different parts, is better.',
      danger:
        'A taxon with a serious or life-threatening hazard. A taxon that has not been assessed is not harmless: the question is open.',
      ruledOut:
        'A danger is ruled out when two reliable characters on two different parts speak against it, in cells that somebody vouches for.',
      gate: 'What stands between a study and its next edition, above all dangers that readers could not rule out.',
      edition: 'What is published. It never changes; a newer one follows it, or it is withdrawn with a reason.',
      couplet:
        'A step of a key with the statements to choose from, each of which leads on to another step or to a name.',
      anyOrder: 'A key that takes what can be seen, in any order, and says what it might still be.',
      outside:
        'A lookalike that the study does not score. Readers are told of it, because the key can never rule it out.',
      blind: 'A second person scores without seeing what the first one scored, so that the two can be compared.',
      confirm: 'To check a score against the specimen or the book, and to put one’s name to it.',
    },
  },
};
