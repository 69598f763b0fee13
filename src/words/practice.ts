import type { BiteOrder, Candidate, PracticeLayer, SessionItem } from '#core/practice';
import type { TuneReport } from '#core/report';
import { occurrencesOf } from '#core/tune';
import { counted } from './plural';
import { countWords, spotWords } from './spot';

export const ORDER_WORDS: Readonly<Record<BiteOrder, { readonly name: string; readonly about: string }>> = {
  start: { name: 'start to end', about: 'as the tune goes' },
  most: { name: 'most first', about: 'what lets you play most of the tune soonest' },
  hardest: { name: 'hardest first', about: 'what breaks first' },
  end: { name: 'from the end', about: 'so that you play toward what you know' },
};

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** Why something is to be practised today. */
export function candidateWords({ what, share, chance }: Pick<Candidate, 'what' | 'share' | 'chance'>): string {
  switch (what) {
    case 'review':
      return `Its day has come: a ${percent(chance)} chance that it is still there. ${percent(share)} of the playing time.`;
    case 'weakest':
      return `Most is at stake here: ${percent(share)} of the playing time, a ${percent(chance)} chance of coming out clean at the goal.`;
    case 'new':
      return `New: it opens ${percent(share)} of the playing time.`;
    case 'join':
      return `You know both sides: the step between them has a ${percent(chance)} chance at the goal.`;
  }
}

/** The same of an item of a session. */
export function itemWords({ what, candidate }: Pick<SessionItem, 'what' | 'candidate'>): string {
  if (candidate) return candidateWords(candidate);
  return what === 'warm-up'
    ? 'Rhythm on an open string, the scale, the chord of the key, then the tune.'
    : 'Once through at a tempo that holds, without stopping.';
}

export const ITEM_NAMES: Readonly<Record<SessionItem['what'], string>> = {
  'warm-up': 'Warm-up',
  review: 'Review',
  weakest: 'Ladder',
  new: 'New bite',
  join: 'Join',
  'run-through': 'Run-through',
};

export const LAYER_WORDS: Readonly<Record<PracticeLayer, string>> = {
  melody: 'melody alone',
  'second-string': 'with the second string',
  bowing: 'with the bowing',
  colour: 'with the ornaments',
  tempo: 'everything, to tempo',
};

/** Where a bite is known from: `The same fingers and bowing as in Pewter Sky, bar 3 of A, for 7 of its 8 notes.` */
export function knownHandWords({
  covers,
  of,
  ...known
}: {
  readonly title: string;
  readonly part: string;
  readonly bar: number;
  readonly covers: number;
  readonly of: number;
}): string {
  const notes = covers === of ? 'all of it' : `${covers} of its ${counted(of, 'note')}`;
  return `You know ${notes} from ${known.title}: same fingers, same bowing, ${stretchStart(known)}.`;
}

const stretchStart = ({ part, bar }: { readonly part: string; readonly bar: number }): string =>
  `there from ${spotWords({ part, bar, ending: null })} on`;

/** `bars 1–2 of A`, `bar 8 of A, 2nd ending`. */
export function stretchWords(
  from: { readonly bar: number; readonly part: string; readonly ending: number | null },
  to: { readonly bar: number },
): string {
  if (from.bar === to.bar) return spotWords(from);
  if (from.bar === 0) return `the pickup and ${to.bar === 1 ? 'bar 1' : `bars 1–${to.bar}`} of ${from.part}`;
  return spotWords(from).replace(`bar ${from.bar}`, `bars ${from.bar}–${to.bar}`);
}

/** A stretch that is logged, by where it stands now; what the plan has no more has no place. */
export function attemptSpanWords(
  report: TuneReport,
  { from, to }: { readonly from: string; readonly to: string },
): string {
  const { notes } = report.unrolled;
  if (notes[0]?.note.id === from && notes[notes.length - 1]?.note.id === to) return 'the whole tune';
  const met = occurrencesOf(report.unrolled);
  const first = met.get(from)?.[0];
  const last = first === undefined ? undefined : met.get(to)?.find((index) => index >= first);
  if (first === undefined || last === undefined) return 'a stretch that is no longer there';
  return biteWords(report, { first, last });
}

/** A bite as a player would say where it is; the beat is told where it does not begin with its bar. */
export function biteWords(
  { unrolled }: TuneReport,
  { first, last }: { readonly first: number; readonly last: number },
): string {
  const [from, to] = [unrolled.notes[first]!, unrolled.notes[last]!];
  const before = unrolled.notes[first - 1];
  const begins = !before || before.bar !== from.bar || before.passIndex !== from.passIndex;
  return begins ? stretchWords(from, to) : `${stretchWords(from, to)} from ${countWords(from)}`;
}
