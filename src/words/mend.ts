import type { Disturbance } from '#core/bowing';
import type { Finding, FindingPlace, Mend } from '#core/report';
import type { Direction, Link } from '#core/tune';
import { barWords } from './place';
import { counted } from './plural';
import { positionWords } from './position';

const BOW: Record<Direction, string> = { down: 'down-bow', up: 'up-bow' };

type MendedFinding = Pick<Finding, 'place' | 'ids'>;

/** What a mend does and what it buys: `split it: stands to 115`. */
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

function deedWords(mend: Mend, { place: own, ids }: MendedFinding): string {
  const { deed, place, edits, start, also } = mend;
  const isHere = edits.length === 0 || ids.includes(edits[0]!.id);
  const isSameBar = place !== null && place.part === own.part && place.bar === own.bar;
  const bar = place === null || isSameBar ? '' : ` in ${barIn(place, own.part)}`;
  const beat = place === null ? '' : `${isSameBar ? ' at' : ','} beat ${Number(place.beat.toFixed(2))}`;
  const where = isHere ? '' : `${bar}${beat}`;
  const other = edits.find(({ id }) => id !== edits[0]!.id);
  const next = also ? ` and ${alsoWords(also, own.part)}` : other ? ` and ${NEXT_WORDS[other.link]}` : '';
  switch (deed) {
    case 'split':
      return `split ${isHere ? 'it' : 'the slur'}${where}${next}`;
    case 'join':
      return `slur ${isHere ? 'it' : 'two'}${where}${next}`;
    case 'turn':
      return `turn the bow${where}${next}`;
    case 'retake':
      return `retake${where}${once(mend)}${next}`;
    case 'start':
      return `start on the ${BOW[start ?? 'down']}`;
    case 'rebar':
      return 'draw the bar lines anew from here';
    case 'unlock':
      return 'unlock it';
    case 'slower':
      return 'play it slower';
    case 'fit-last-note':
      return 'make the last note fit';
    case 'less-bow':
      return `draw ${mend.notes?.length === 1 ? 'one stroke' : `${mend.notes?.length ?? 0} strokes`} with less bow`;
    case 'accent':
      return 'mean the quick stroke as an accent';
    case 'hold-pair':
      return 'stay on both strings';
    case 'barre':
      return 'lay the finger across both strings';
    case 'refinger':
      return refingerWords(mend);
    case 'confirm-string':
      return ids.length === 1 ? 'keep the string' : `keep all ${ids.length} strings`;
    case 'leave-off':
      return 'leave it off';
    case 'press-in':
      return 'press it in instead';
    case 'make-alike':
      return 'bow them alike';
    case 'other-drone':
      return 'take the string on the other side';
    case 'no-drone':
      return 'play it on one string';
  }
}

const ORDINALS = ['first', 'second', 'third', 'fourth'];

/** `, the second time only`: for an edit of one pass. */
function once({ edits }: Mend): string {
  const pass = edits[0]?.pass ?? null;
  return pass === null ? '' : `, the ${ORDINALS[pass - 1] ?? `${pass}th`} time only`;
}

function refingerWords({ notes: edits = [] }: Mend): string {
  const edit = edits.find((candidate) => 'refinger' in candidate);
  if (!edit || !('refinger' in edit)) return 'take another finger';
  const { place, finger, position } = edit.refinger;
  return `take it as ${place}:${finger}${position === 1 ? '' : ` in ${positionWords(position)} position`}`;
}

function alsoWords({ deed, place }: NonNullable<Mend['also']>, ownPart: string): string {
  const deeds = { split: 'split the slur', join: 'slur two', turn: 'turn the bow', retake: 'retake' };
  return `${deeds[deed]} in ${barIn(place, ownPart)}, beat ${Number(place.beat.toFixed(2))}`;
}

/** `bar 3`, with its part where that is another than the finding's. */
function barIn(place: FindingPlace, ownPart: string): string {
  const bar = barWords(place).toLowerCase();
  return place.part === ownPart ? bar : `${bar} of ${place.part}`;
}

const COSTS: Partial<Record<Disturbance, string>> = {
  'crossing-in-slur': 'crosses in a slur',
  'accent-moved': 'moves an accent',
  'pattern-broken': 'breaks the pattern',
  'twin-broken': 'parts a figure from its twin',
  'one-pass': 'the passes then begin differently',
  'lock-contradicted': 'contradicts a lock',
};

/** What a mend costs beside its gain, where it says so. */
function costWords({ disturbs = [] }: Mend): string {
  const words = disturbs.flatMap((name) => COSTS[name] ?? []);
  return words.length === 0 ? '' : `; ${words.join(', ')}`;
}

function gainWords(mend: Mend): string {
  const { deed, ceilingBpm, hereBpm, reverseOvals, comesRound, flippedParts } = mend;
  const { outside, jerks, armDegreesSaved } = mend;
  const to = (bpm: number | null) => (bpm === null ? 'at any tempo' : `to ${Math.floor(bpm)}`);
  if (deed === 'confirm-string') return 'nothing else changes';
  if (deed === 'slower') return `${Math.floor(ceilingBpm ?? 0)} stands`;
  // Other places may still hold the tune back: then the gain is here alone.
  const isHereOnly = hereBpm !== undefined && ceilingBpm !== null && (hereBpm === null || hereBpm > ceilingBpm + 0.5);
  const stands = isHereOnly ? `stands ${to(hereBpm)} here` : `stands ${to(ceilingBpm)}`;
  const round = comesRound ? '' : 'does not come round, ';
  if (outside !== undefined)
    return `${outside === 0 ? 'all within the window' : `${counted(outside, 'stroke')} still outside`}, ${round}${stands}`;
  if (jerks !== undefined)
    return `${jerks === 0 ? 'no jerk left' : `${counted(jerks, 'jerk')} left`}, ${round}${stands}`;
  if (armDegreesSaved !== undefined) return `the arm turns ${Math.round(armDegreesSaved)}° less, ${round}${stands}`;
  if (reverseOvals !== undefined) {
    const ovals = deed === 'start' ? `${reverseOvals} reverse crossings left` : 'all natural here';
    return `${ovals}, ${comesRound ? '' : 'does not come round, '}${stands}`;
  }
  if (comesRound) return `comes round, ${stands}`;
  if (flippedParts.length === 0) return `${stands}, flips when begun again`;
  return `${stands}, ${flippedParts.join(' and ')} flip${flippedParts.length === 1 ? 's' : ''}`;
}

/** What undo says of a mend that was made. */
export function mendLabel({ deed, place: own, barId, start, ceilingBpm }: Mend, finding: MendedFinding): string {
  const place = own ?? finding.place;
  const bar = place.bar === 0 ? 'the pickup' : `bar ${place.bar}`;
  if (barId) return `draw the bar lines anew from ${bar}`;
  if (start) return `start on the ${BOW[start]}`;
  switch (deed) {
    case 'slower':
      return `tempo ${Math.floor(ceilingBpm ?? 0)}`;
    case 'fit-last-note':
      return `last note made to fit in ${bar}`;
    case 'less-bow':
      return `less bow from ${bar}`;
    case 'accent':
      return `accent in ${bar}`;
    case 'hold-pair':
      return `stay on both strings from ${bar}`;
    case 'refinger':
      return `refinger in ${bar}`;
    case 'leave-off':
      return `ornament left off in ${bar}`;
    default:
      return `${deed} in ${bar}`;
  }
}
