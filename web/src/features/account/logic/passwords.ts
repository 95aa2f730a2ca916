/** As the server has it: shorter ones are guessed, of longer ones the rest would not count. */
export const SHORTEST = 10;
export const LONGEST = 72;
