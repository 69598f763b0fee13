import type { Disturbance } from '#core/bowing';
import type { Finding, Mend, NoteEdit, Spot, Turn } from '#core/report';
import type { Direction, Link } from '#core/tune';
import { counted } from './plural';
import { positionWords } from './position';
import { barWords, countWords } from './spot';
import { holdsWords } from './tempo';

const BOW: Record<Direction, string> = { down: 'down-bow', up: 'up-bow' };

type MendedFinding = Pick<Finding, 'spot' | 'ids'>;

/** What a mend does and what it buys: `split it: holds up to 115`. */
export function mendWords(mend: Mend, finding: MendedFinding): string {
  // Bar lines change nothing but where they stand.
  if (mend.deed === 'rebar' || mend.deed === 'fit-last-note') return deedWords(mend, finding);
  return `${deedWords(mend, finding)}: ${gainWords(mend)}${costWords(mend)}`;
}

/** A second edit, to the note after. */
const NEXT_WORDS: Record<Link, string> = {
  start: 'begin on the next note',
  change: 'turn on the next note',
  slur: 'slur the next note',
  hook: 'hook the next note',
  retake: 'retake the next note',
};

function deedWords(mend: Mend, finding: MendedFinding): string {
  switch (mend.deed) {
    case 'split':
    case 'join':
    case 'turn':
    case 'retake':
      return turnWords(mend, finding);
    case 'make-alike':
      return 'bow them alike';
    case 'start':
      return `start on the ${BOW[mend.start]}`;
    case 'rebar':
      return 'redraw the bar lines from here';
    case 'unlock':
      return 'unlock it';
    case 'slower':
      return 'lower the goal';
    default:
      return noteDeedWords(mend, finding);
  }
}

type TurnMend = Mend & { readonly deed: Turn };
type NoteMend = Extract<Mend, { readonly notes: unknown }>;

/** `split the slur in bar 3, the “and” of 2 and turn on the next note`. */
function turnWords(mend: TurnMend, { spot: own, ids }: MendedFinding): string {
  const { spot, edits, also } = mend;
  const isHere = ids.includes(edits[0]!.id);
  const isSameBar = spot !== null && spot.part === own.part && spot.bar === own.bar;
  const bar = spot === null || isSameBar ? '' : ` in ${barIn(spot, own.part)}`;
  const beat = spot === null ? '' : `${isSameBar ? ' on' : ','} ${countWords(spot)}`;
  const where = isHere ? '' : `${bar}${beat}`;
  const other = edits.find(({ id }) => id !== edits[0]!.id);
  const next = also ? ` and ${alsoWords(also, own.part)}` : other ? ` and ${NEXT_WORDS[other.link]}` : '';
  const turned = {
    split: `split ${isHere ? 'it' : 'the slur'}${where}`,
    join: `slur ${isHere ? 'it' : 'two'}${where}`,
    turn: `turn the bow${where}`,
    retake: `retake${where}${once(mend)}`,
  };
  return `${turned[mend.deed]}${next}`;
}

function noteDeedWords({ deed, notes }: NoteMend, { ids }: MendedFinding): string {
  switch (deed) {
    case 'fit-last-note':
      return 'make the last note fit';
    case 'less-bow':
      return `draw ${notes.length === 1 ? 'one stroke' : `${notes.length} strokes`} with less bow`;
    case 'accent':
      return 'make the quick stroke an accent';
    case 'hold-pair':
      return 'stay on both strings';
    case 'barre':
      return 'lay the finger across both strings';
    case 'refinger':
      return refingerWords(notes);
    case 'confirm-string':
      return ids.length === 1 ? 'yes, this string' : `yes, these strings for all ${ids.length}`;
    case 'leave-off':
      return 'leave it out';
    case 'press-in':
      return 'press it in instead';
    case 'other-drone':
      return 'take the string on the other side';
    case 'no-drone':
      return 'play it on one string';
  }
}

const ORDINALS = ['first', 'second', 'third', 'fourth'];

/** `, the second time only`: for an edit of one pass. */
function once({ edits }: TurnMend): string {
  const pass = edits[0]?.pass ?? null;
  return pass === null ? '' : `, the ${ORDINALS[pass - 1] ?? `${pass}th`} time only`;
}

function refingerWords(edits: readonly NoteEdit[]): string {
  const edit = edits.find((candidate) => 'refinger' in candidate);
  if (!edit || !('refinger' in edit)) return 'take another finger';
  const { place, finger, position } = edit.refinger;
  return `take it as ${place}:${finger}${position === 1 ? '' : ` in ${positionWords(position)} position`}`;
}

function alsoWords({ deed, spot }: NonNullable<TurnMend['also']>, ownPart: string): string {
  const deeds = { split: 'split the slur', join: 'slur two', turn: 'turn the bow', retake: 'retake' };
  return `${deeds[deed]} in ${barIn(spot, ownPart)}, ${countWords(spot)}`;
}

/** `bar 3`, with its part where that is another than the finding's. */
function barIn(spot: Spot, ownPart: string): string {
  const bar = barWords(spot);
  return spot.part === ownPart ? bar : `${bar} of ${spot.part}`;
}

const COSTS: Partial<Record<Disturbance, string>> = {
  'crossing-in-slur': 'crosses in a slur',
  'accent-moved': 'moves an accent',
  'pattern-broken': 'breaks the pattern',
  'twin-broken': 'no longer like the same figure elsewhere',
  'one-pass': 'the two times then begin differently',
  'lock-contradicted': 'goes against a lock',
};

/** What a mend costs beside its gain, where it says so. */
function costWords(mend: Mend): string {
  const words = ('disturbs' in mend ? (mend.disturbs ?? []) : []).flatMap((name) => COSTS[name] ?? []);
  return words.length === 0 ? '' : `; ${words.join(', ')}`;
}

function gainWords(mend: Mend): string {
  const { deed, gain, ceilingBpm, comesRound, flippedParts } = mend;
  if (deed === 'confirm-string') return 'nothing else changes';
  if (deed === 'slower') return `it holds at ${Math.floor(ceilingBpm ?? 0)}`;
  const holds = gainedTempo(mend);
  const round = comesRound ? '' : 'does not come round, ';
  switch (gain.of) {
    case 'outside':
      return `${gain.left === 0 ? 'all in the working part of the bow' : `${counted(gain.left, 'stroke')} still outside`}, ${round}${holds}`;
    case 'jerks':
      return `${gain.left === 0 ? 'no jerk left' : `${counted(gain.left, 'jerk')} left`}, ${round}${holds}`;
    case 'arm':
      return `the arm turns ${Math.round(gain.degreesSaved)}° less, ${round}${holds}`;
    case 'reverse-crossings':
      return `${deed === 'start' ? `${gain.left} reverse crossings left` : 'all as you like them here'}, ${round}${holds}`;
    case 'tune':
    case 'spot':
      if (comesRound) return `comes round, ${holds}`;
      if (flippedParts.length === 0) return `${holds}, flips when begun again`;
      return `${holds}, ${flippedParts.join(' and ')} flip${flippedParts.length === 1 ? 's' : ''}`;
  }
}

/** `holds up to 112`; where other places still hold the tune back, what is gained at the place itself. */
function gainedTempo({ gain, ceilingBpm }: Mend): string {
  const isHereOnly = gain.of === 'spot' && ceilingBpm !== null && (gain.bpm === null || gain.bpm > ceilingBpm + 0.5);
  return isHereOnly ? `${holdsWords(gain.bpm)} here` : holdsWords(ceilingBpm);
}

/** What undo says of a mend that was made. */
export function mendLabel(mend: Mend, finding: MendedFinding): string {
  const spot = mend.spot ?? finding.spot;
  const bar = barWords(spot);
  switch (mend.deed) {
    case 'rebar':
      return `redraw the bar lines from ${bar}`;
    case 'start':
      return `start on the ${BOW[mend.start]}`;
    case 'slower':
      return `goal ${Math.floor(mend.ceilingBpm ?? 0)}`;
    case 'make-alike':
      return `figures bowed alike from ${bar}`;
    case 'split':
    case 'join':
    case 'turn':
    case 'retake':
    case 'unlock':
      return `${mend.deed} in ${bar}`;
    default:
      return noteMendLabel(mend.deed, bar);
  }
}

function noteMendLabel(deed: NoteMend['deed'], bar: string): string {
  switch (deed) {
    case 'fit-last-note':
      return `last note made to fit in ${bar}`;
    case 'less-bow':
      return `less bow from ${bar}`;
    case 'accent':
      return `accent in ${bar}`;
    case 'hold-pair':
      return `stay on both strings from ${bar}`;
    case 'confirm-string':
      return `strings kept from ${bar}`;
    case 'barre':
      return `one finger across in ${bar}`;
    case 'refinger':
      return `refinger in ${bar}`;
    case 'leave-off':
      return `ornament left out in ${bar}`;
    case 'press-in':
      return `slide pressed in, ${bar}`;
    case 'other-drone':
      return `other drone in ${bar}`;
    case 'no-drone':
      return `no drone in ${bar}`;
  }
}
