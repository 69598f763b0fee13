import type { Words } from '#contract/settings';
import { divide, formatFraction, type Fraction, fraction } from '#core/base';
import { ORNAMENTS } from '#core/ornaments';
import type { Finding } from '#core/report';
import type { EventKind } from '#core/tempo';
import type { Direction } from '#core/tune';
import type { MemberOf } from './memberOf';
import { obstacleWords, ornamentName } from './ornament';
import { counted } from './plural';
import { positionWords } from './position';
import { spotWords } from './spot';

/** A finding in words: where, why with figures. */
export interface FindingWords {
  /** Where it stands: `Bar 6.` or `B flips.` */
  readonly lead: string;
  readonly body: string;
  /** The figures it rests on, in one line. */
  readonly figures: string;
}

const BOW: Record<Direction, string> = { down: 'down-bow', up: 'up-bow' };

type PlayersWords = Pick<Words, 'cut' | 'flick'>;

/** Labels where the player has chosen none. */
const DEFAULT_WORDS: PlayersWords = { cut: 'left-hand', flick: 'flick' };

const round = (value: number) => String(Math.round(value));
const strokes = (count: number) => counted(count, 'stroke');

/** The finding of a kind. */
type FindingOf<C extends Finding['code']> = MemberOf<Finding, 'code', C>;

/** A finding that has no lead of its own begins with its place. */
type Told = Omit<FindingWords, 'lead'> & Partial<Pick<FindingWords, 'lead'>>;

const barSum = (finding: FindingOf<'bar-short'>): Told => ({
  body: `This bar holds too ${finding.code === 'bar-long' ? 'much' : 'little'}.`,
  figures: `${eighths(finding.length)}, ${eighths(finding.expected)} are expected`,
});

/** Words for each kind of finding: one without words does not compile. */
const TOLD: { readonly [C in Finding['code']]: (finding: FindingOf<C>, words: PlayersWords) => Told } = {
  'part-flips': (finding) => ({
    lead: `${finding.part} flips.`,
    body: `Its pass ${finding.pass} starts on the ${BOW[finding.entry]}, pass 1 on the other.`,
    figures: `${turns(finding.turns)} from beat 1 to the next: an odd count flips it · ${finding.changed} notes change direction${finding.locks > 0 ? `, ${notes(finding.locks)} of them locked` : ''}${unmended(finding)}`,
  }),
  'tune-flips-again': (finding) => ({
    lead: 'Flips when begun again.',
    body: 'Each part comes round, but the second time through the tune starts on the other bow.',
    figures: `${turns(finding.turns)} from first note to first note: an odd count flips it${unmended(finding)}`,
  }),
  'slur-skips-string': (finding) => ({
    body: `This slur jumps from ${finding.from} to ${finding.to} over a string between.`,
    figures: tempoFigures(finding),
  }),
  'crossing-too-fast': (finding) => ({
    body: `The bow cannot get from ${finding.from} to ${finding.to} in time${finding.inSlur ? ' inside a slur' : ''}.`,
    figures: tempoFigures(finding),
  }),
  'stroke-too-fast': (finding) => ({
    body: 'This stroke is shorter than the hand can turn.',
    figures: tempoFigures(finding),
  }),
  'hop-too-fast': (finding) => ({
    body: `One finger cannot ${finding.event === 'barre' ? 'be laid across' : 'hop from'} the ${finding.from} ${finding.event === 'barre' ? 'and' : 'to'} the ${finding.to} string in time.`,
    figures: tempoFigures(finding),
  }),
  'shift-too-fast': (finding) => ({
    body: `The hand cannot shift from ${positionWords(finding.from)} to ${positionWords(finding.to)} position in time.`,
    figures: tempoFigures(finding),
  }),
  'retake-too-fast': (finding) => ({
    body: 'The bow cannot be lifted and set again in time.',
    figures: tempoFigures(finding),
  }),
  'ornament-too-fast': (finding, words) => ({
    body: `There is no time for this ${eventName(finding.event, words)}.`,
    figures: tempoFigures(finding),
  }),
  'runs-out-of-hair': (finding) => ({
    body:
      finding.cause === 'slow'
        ? 'However slowly you draw it, this stroke runs out of hair.'
        : 'This stroke is asked to be longer than the hair.',
    figures: `${finding.seconds.toFixed(1)} s take ${round(finding.cm)} cm at least, you have ${round(finding.hairCm)}${others(finding.others, 'stroke')}`,
  }),
  'lock-contradicted': (finding) => ({
    body: `Locked to the ${BOW[finding.lock]}, but the strokes before it bring the other.`,
    figures: `on ${finding.passes.join(', ')}`,
  }),
  'out-of-reach': (finding) => ({
    body: 'Out of reach: no position up to the fifth has it, or your hand leaves no way. Another octave may do.',
    figures: notes(finding.ids.length),
  }),
  'stops-out-of-reach': (finding) => ({
    body: 'The hand cannot stop these notes together; the top note is planned alone.',
    figures: notes(finding.ids.length),
  }),
  'finger-misfits': (finding) => ({
    body: 'The finger written here does not give this note.',
    figures: notes(finding.ids.length),
  }),
  'hand-forbids': (finding) => ({
    body: 'This asks for a finger or a span that you keep from your hand; nothing was changed here.',
    figures: notes(finding.ids.length),
  }),
  'ornament-misfits': (finding, words) => ({
    body: `This ${ornamentName(finding.ornament, words)} does not fit: ${obstacleWords(finding.obstacle, finding.ornament)}.`,
    figures: `1 note${others(finding.others, 'place')}`,
  }),
  'drone-grates': (finding) => ({
    body: `The drone ${finding.drone} is a ${finding.interval} from this note and does not resolve.`,
    figures: `rank ${finding.rank.toFixed(2)}${finding.bestRank < finding.rank ? `, the other side has ${finding.bestRank.toFixed(2)}` : ', less is better'}${others(finding.others, 'place')}`,
  }),
  'bar-short': barSum,
  'bar-long': barSum,
  'join-does-not-add-up': (finding) => ({
    body:
      finding.to === null
        ? 'Last bar and pickup do not make a whole bar when the tune begins again.'
        : `Last bar and pickup do not make a whole bar from ${finding.from} to ${finding.to}.`,
    figures: `${eighths(finding.length)}, ${eighths(finding.expected)} are expected`,
  }),
  'reverse-crossings': (finding) => ({
    body: `The bow crosses the other way round than you like it: the ${finding.liked === 'lower-down' ? 'lower' : 'upper'} string is drawn up each time.`,
    figures: `${finding.count} such crossings in a row${others(finding.others, 'passage')}`,
  }),
  'bars-begin-up': (finding) => ({
    lead: `Up-bow bars in ${finding.part}.`,
    body: 'Most of its bars begin where the bow pulls least.',
    figures: `${finding.up} of ${finding.bars} bars${others(finding.others, 'part')}`,
  }),
  'bowed-unlike': (finding) => ({
    body: 'This figure comes again and is bowed another way there: at speed it is two figures to the hand.',
    figures: `${notes(finding.notes)}, ${finding.spots} places${finding.flips > 0 ? ' · bowed alike, what follows one of them flips' : ''}${others(finding.others, 'figure')}`,
  }),
  'window-left': (finding) => ({
    body:
      finding.end === 'tip'
        ? 'From here the strokes lie far out, where the tone thins.'
        : 'From here the strokes lie near the frog, where the arm tires and the bow may bounce.',
    figures: `${strokes(finding.strokes)} of the phrase outside the working window, ${round(100 * finding.share)} % of its time, by up to ${finding.cm.toFixed(1)} cm${others(finding.others, 'phrase')}`,
  }),
  jerk: (finding) => ({
    body:
      finding.to > finding.from
        ? 'The bow must jerk forward here: this stroke is much quicker than the one before.'
        : 'The bow must brake hard here: this stroke is much slower than the one before.',
    figures: `from ${round(finding.from)} to ${round(finding.to)} cm a second${others(finding.others, 'place')}`,
  }),
  'skip-may-sound': (finding) => ({
    body: `The bow passes over a string between ${finding.from} and ${finding.to}, which may sound.`,
    figures: `at a bow change, on the string${others(finding.others, 'place')}`,
  }),
  'one-plane': (finding) => ({
    body: `The bow may stay on ${finding.pair} together: the melody changes string, the plane need not.`,
    figures: `${finding.crossings} crossings in a row, and both open strings agree${others(finding.others, 'passage')}`,
  }),
  'extended-fourth': (finding) => ({
    body: `Reached only with the fourth finger stretched, 8 semitones up the ${finding.string} string.`,
    figures: notes(finding.ids.length),
  }),
  'string-inferred': (finding) => ({
    body: 'The string was not said when this was called out: it was guessed.',
    figures: notes(finding.notes),
  }),
};

/** A finding in words. */
export function findingWords(finding: Finding, words: PlayersWords = DEFAULT_WORDS): FindingWords {
  const tell = TOLD[finding.code] as (finding: Finding, words: PlayersWords) => Told;
  return { lead: `${spotWords(finding.spot)}.`, ...tell(finding, words) };
}

/** A timed ornament as the player's school calls it. */
function eventName(event: EventKind, words: PlayersWords): string {
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
  return mends.some(({ comesRound }) => comesRound) ? '' : ' · no one or two changes bring all round';
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
  return `${way}${round(finding.availableMs)} ms, you need ${round(finding.neededMs)}${close} · stands to ${round(finding.standsTo)}${others(finding.others, 'place')}`;
}
