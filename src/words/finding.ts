import { DEFAULT_SETTINGS, type Words } from '#contract/settings';
import { divide, formatFraction, type Fraction, fraction } from '#core/base';
import { ORNAMENTS } from '#core/ornaments';
import type { Finding } from '#core/report';
import type { EventKind } from '#core/tempo';
import type { Direction } from '#core/tune';
import { STANDARD_TUNING, type Tuning } from '#core/tuning';
import type { MemberOf } from './memberOf';
import { ordinal } from './ordinal';
import { obstacleWords, ornamentName } from './ornament';
import { counted } from './plural';
import { positionWords } from './position';
import { capitalised, noteSpotWords, spotWords } from './spot';
import { stringName, stringNames } from './strings';

/** A finding in words: where, why with figures. */
export interface FindingWords {
  /** Where it stands: `Bar 6.` or `B flips.` */
  readonly lead: string;
  readonly body: string;
  /** The figures it rests on, in one line. */
  readonly figures: string;
}

const BOW: Record<Direction, string> = { down: 'down-bow', up: 'up-bow' };

/** The player's names for ornaments, and the tuning in which strings are named. */
type FindingTerms = Pick<Words, 'cut' | 'flick'> & { readonly tuning: Tuning };

/** Labels where the player has chosen none. */
const DEFAULT_TERMS: FindingTerms = { ...DEFAULT_SETTINGS.words, tuning: STANDARD_TUNING };

const round = (value: number) => String(Math.round(value));
const strokes = (count: number) => counted(count, 'stroke');

/** The finding of a kind. */
type FindingOf<C extends Finding['code']> = MemberOf<Finding, 'code', C>;

/** A finding that has no lead of its own begins with its place. */
type Told = Omit<FindingWords, 'lead'> & Partial<Pick<FindingWords, 'lead'>>;

const barSum = (finding: FindingOf<'bar-short'>): Told => ({
  body: `This bar is too ${finding.code === 'bar-long' ? 'long' : 'short'}.`,
  figures: `${eighths(finding.length)} where ${eighths(finding.expected)} should be`,
});

/** Words for each kind of finding: one without words does not compile. */
const TOLD: { readonly [C in Finding['code']]: (finding: FindingOf<C>, terms: FindingTerms) => Told } = {
  'part-flips': (finding) => ({
    lead: `${finding.part} flips.`,
    body: `The ${ordinal(finding.pass)} time starts on the ${BOW[finding.entry]}, the first on the other.`,
    figures: `${turns(finding.turns)} from one start to the next: odd, so it flips · ${finding.changed} notes change direction${finding.locks > 0 ? `, ${notes(finding.locks)} of them locked` : ''}${unmended(finding)}`,
  }),
  'tune-flips-again': (finding) => ({
    lead: 'The whole tune flips.',
    body: 'Each part comes round, but the second time through, the tune starts on the other bow.',
    figures: `${turns(finding.turns)} from first note to first note: odd, so it flips${unmended(finding)}`,
  }),
  'slur-skips-string': (finding, { tuning }) => ({
    ...atNote(finding),
    body: `This slur jumps from ${stringNames(finding.from, tuning)} to ${stringNames(finding.to, tuning)} over the string between.`,
    figures: tempoFigures(finding),
  }),
  'crossing-too-fast': (finding, { tuning }) => ({
    ...atNote(finding),
    body: `${finding.inSlur ? 'Inside this slur the' : 'The'} bow cannot get from ${stringNames(finding.from, tuning)} to ${stringNames(finding.to, tuning)} in time.`,
    figures: tempoFigures(finding),
  }),
  'stroke-too-fast': (finding) => ({
    ...atNote(finding),
    body: 'This stroke is over before your hand can turn the bow.',
    figures: tempoFigures(finding),
  }),
  'hop-too-fast': (finding, { tuning }) => ({
    ...atNote(finding),
    body:
      finding.event === 'barre'
        ? `There is no time to lay one finger across the ${stringNames(finding.from, tuning)} and ${stringNames(finding.to, tuning)} strings.`
        : `There is no time for one finger to hop from the ${stringNames(finding.from, tuning)} to the ${stringNames(finding.to, tuning)} string.`,
    figures: tempoFigures(finding),
  }),
  'shift-too-fast': (finding) => ({
    ...atNote(finding),
    body: `The hand cannot shift from ${positionWords(finding.from)} to ${positionWords(finding.to)} position in time.`,
    figures: tempoFigures(finding),
  }),
  'retake-too-fast': (finding) => ({
    ...atNote(finding),
    body: 'There is no time to lift the bow and set it again.',
    figures: tempoFigures(finding),
  }),
  'ornament-too-fast': (finding, terms) => ({
    ...atNote(finding),
    body: `There is no time for this ${eventName(finding.event, terms)}.`,
    figures: tempoFigures(finding),
  }),
  'runs-out-of-hair': (finding) => ({
    body:
      finding.cause === 'slow'
        ? 'Even drawn as slowly as you can, this stroke runs out of bow.'
        : 'This stroke asks for more bow than there is.',
    figures: `${finding.seconds.toFixed(1)} s takes at least ${round(finding.cm)} cm, you have ${round(finding.hairCm)}${others(finding.others, 'stroke')}`,
  }),
  'lock-contradicted': (finding) => ({
    ...atNote(finding),
    body: `You locked this ${BOW[finding.lock]}, but the strokes before it lead to the other.`,
    figures: `in ${finding.passes.join(', ')}`,
  }),
  'out-of-reach': (finding) => ({
    body: 'Out of reach: no position up to the fifth has it, or your hand settings rule it out. Another octave may work.',
    figures: notes(finding.ids.length),
  }),
  'stops-out-of-reach': (finding) => ({
    body: 'The hand cannot stop these notes together, so only the top note is planned.',
    figures: notes(finding.ids.length),
  }),
  'finger-misfits': (finding) => ({
    body: 'The finger written here does not give this note.',
    figures: notes(finding.ids.length),
  }),
  'hand-forbids': (finding) => ({
    body: 'This needs a finger or a stretch that your hand leaves out. Nothing was changed here.',
    figures: notes(finding.ids.length),
  }),
  'ornament-misfits': (finding, terms) => ({
    ...atNote(finding),
    body: `This ${ornamentName(finding.ornament, terms)} does not fit: ${obstacleWords(finding.obstacle, finding.ornament)}.`,
    figures: `1 note${others(finding.others, 'place')}`,
  }),
  'drone-grates': (finding) => ({
    ...atNote(finding),
    body: `The drone on ${finding.drone} is a ${finding.interval} from this note, and the clash is not resolved.`,
    figures: `harshness ${finding.rank.toFixed(2)}${finding.bestRank < finding.rank ? `; the string on the other side has ${finding.bestRank.toFixed(2)}` : '; less is better'}${others(finding.others, 'place')}`,
  }),
  'bar-short': barSum,
  'bar-long': barSum,
  'join-does-not-add-up': (finding) => ({
    body:
      finding.to === null
        ? 'The last bar and the pickup do not make a whole bar when the tune begins again.'
        : `The last bar and the pickup do not make a whole bar from ${finding.from} to ${finding.to}.`,
    figures: `${eighths(finding.length)} where ${eighths(finding.expected)} should be`,
  }),
  'reverse-crossings': (finding) => ({
    body: `The bow crosses the way you like least: the ${finding.liked === 'lower-down' ? 'lower' : 'upper'} string gets the up-bow each time.`,
    figures: `${finding.count} such crossings in a row${others(finding.others, 'passage')}`,
  }),
  'bars-begin-up': (finding) => ({
    lead: `Up-bows on the downbeat in ${finding.part}.`,
    body: 'Most of its bars begin on the up-bow, where the bow pulls least.',
    figures: `${finding.up} of ${finding.bars} bars${others(finding.others, 'part')}`,
  }),
  'bowed-unlike': (finding) => ({
    body: 'This figure comes back bowed another way: at speed, the hand has two figures to learn.',
    figures: `${notes(finding.notes)}, ${finding.spots} places${finding.flips > 0 ? ' · if they are bowed alike, what follows one of them flips' : ''}${others(finding.others, 'figure')}`,
  }),
  'window-left': (finding) => ({
    body:
      finding.end === 'tip'
        ? 'From here the strokes lie far out, where the tone thins.'
        : 'From here the strokes lie near the frog, where the arm tires and the bow may bounce.',
    figures: `${strokes(finding.strokes)} of the phrase outside the working window, ${round(100 * finding.share)} % of its time, by up to ${finding.cm.toFixed(1)} cm${others(finding.others, 'phrase')}`,
  }),
  jerk: (finding) => ({
    ...atNote(finding),
    body:
      finding.to > finding.from
        ? 'The bow must jerk forward here: this stroke is much quicker than the one before.'
        : 'The bow must brake hard here: this stroke is much slower than the one before.',
    figures: `from ${round(finding.from)} to ${round(finding.to)} cm a second${others(finding.others, 'place')}`,
  }),
  'skip-may-sound': (finding, { tuning }) => ({
    ...atNote(finding),
    body: `Between ${stringNames(finding.from, tuning)} and ${stringNames(finding.to, tuning)} the bow passes over a string, which may sound.`,
    figures: `at a bow change, without lifting${others(finding.others, 'place')}`,
  }),
  'one-plane': (finding, { tuning }) => ({
    body: `Let the bow stay on ${stringNames(finding.pair, tuning)} together: the melody changes string, the arm need not move.`,
    figures: `saves ${finding.crossings} crossings in a row, and both open strings fit${others(finding.others, 'passage')}`,
  }),
  'extended-fourth': (finding, { tuning }) => ({
    ...atNote(finding),
    body: `Only a stretched fourth finger reaches this, 8 semitones up the ${stringName(finding.string, tuning)} string.`,
    figures: notes(finding.ids.length),
  }),
  'string-inferred': (finding) => ({
    body: 'No string was given for this note, so it was guessed.',
    figures: notes(finding.notes),
  }),
};

/** A finding in words. */
export function findingWords(finding: Finding, terms: Partial<FindingTerms> = {}): FindingWords {
  const tell = TOLD[finding.code] as (finding: Finding, terms: FindingTerms) => Told;
  return { lead: `${capitalised(spotWords(finding.spot))}.`, ...tell(finding, { ...DEFAULT_TERMS, ...terms }) };
}

/** The lead of a finding about one note: with the beat. */
function atNote({ spot }: Pick<Finding, 'spot'>): Pick<FindingWords, 'lead'> {
  return { lead: `${capitalised(noteSpotWords(spot))}.` };
}

/** A timed ornament as the player's school calls it. */
function eventName(event: EventKind, words: FindingTerms): string {
  if (event === 'short-roll') return 'short roll';
  if (event === 'long-roll') return 'long roll';
  if (event === 'grace') return 'grace note';
  const ornament = ORNAMENTS.find((candidate) => candidate === event);
  return ornament ? ornamentName(ornament, words) : event;
}

/** ` · 2 more places like it`, where there are any. */
function others(count: number, what: 'place' | 'passage' | 'phrase' | 'stroke' | 'part' | 'figure'): string {
  return count > 0 ? ` · ${count} more ${what}${count === 1 ? '' : 's'} like it` : '';
}

/** Said where the search over one and two links found nothing that brings all of it round. */
function unmended({ mends }: Finding): string {
  return mends.some(({ comesRound }) => comesRound) ? '' : ' · no one or two changes make everything come round';
}

/** A length as a player counts it: `7 eighths`, or as a fraction where eighths do not fit. */
function eighths(length: Fraction): string {
  const count = divide(length, fraction(1, 8));
  return count.d === 1 ? `${counted(count.n, 'eighth')}` : `${formatFraction(length)} of a whole note`;
}

function notes(count: number): string {
  return counted(count, 'note');
}

function turns(count: number): string {
  return counted(count, 'turn');
}

function tempoFigures(finding: {
  readonly degrees: number;
  readonly recent: number;
  readonly availableMs: number;
  readonly neededMs: number;
  readonly standsTo: number;
  readonly others: number;
}): string {
  const way = finding.degrees > 0 ? `${round(finding.degrees)}° in ` : '';
  const close =
    finding.recent > 0 ? ` after ${finding.recent} other crossing${finding.recent === 1 ? '' : 's'} in 0.6 s` : '';
  return `${way}${round(finding.availableMs)} ms, you need ${round(finding.neededMs)}${close} · holds up to ${Math.floor(finding.standsTo)}${others(finding.others, 'place')}`;
}
