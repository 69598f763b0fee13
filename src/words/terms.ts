/** Words of the trade, each explained in a sentence or two where it stands. */
export const TERMS = {
  'comes round': 'Every time through begins on the same bow as the first, and the tune begun again starts as it did.',
  flips: 'Another time through it begins on the other bow, so every stroke then goes the other way.',
  flip: 'Another time through they begin on the other bow, so every stroke then goes the other way.',
  'holds up to':
    'The highest tempo at which every stroke, crossing, finger and ornament still has the time it needs, by your own limits.',
  'holds at any tempo': 'Nothing in this plan needs more time than it has, however fast it is played.',
  'breaks above': 'Faster than this, something in the plan no longer has the time it needs.',
  'runs out of bow below': 'Slower than this, a stroke lasts longer than the bow you have.',
  tightest: 'The place with the least time to spare: it breaks first.',
  room: 'The time to spare at each note: a full bar is easy at this tempo, none left is impossible.',
  slur: 'The note joins the stroke before it, without a stop.',
  turn: 'The bow turns: a new stroke the other way.',
  hook: 'The note is in the same stroke as the one before it, after a short stop of the bow.',
  retake: 'The bow is lifted and set again, so that two strokes in a row go the same way.',
  ring: 'How much a note makes the open strings sound along.',
} as const;
export type TermName = keyof typeof TERMS;

/** A sentence cut at the words that are explained; each is explained where it comes first. */
export function termedPieces(sentence: string): { readonly words: string; readonly term: TermName | null }[] {
  const names = (Object.keys(TERMS) as TermName[]).sort((a, b) => b.length - a.length);
  const seen = new Set<TermName>();
  const pieces: { words: string; term: TermName | null }[] = [];
  for (const words of sentence.split(new RegExp(`\\b(${names.join('|')})\\b`))) {
    if (words === '') continue;
    const name = names.find((candidate) => candidate === words);
    const term = name !== undefined && !seen.has(name) ? name : null;
    if (term) seen.add(term);
    pieces.push({ words, term });
  }
  return pieces;
}
