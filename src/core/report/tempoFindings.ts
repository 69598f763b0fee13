import type { BeatsPerMinute } from '#core/base';
import { isInsideTuplet, joiningLink } from '#core/bowing';
import { type Crossing, planeName } from '#core/crossing';
import { crossingNeeds, DENSITY, type TimedEvent } from '#core/tempo';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { handMends } from './handMends';
import { type Mend, mendBy, MENDS_OFFERED } from './mend';

/** More places of one kind than this are not told one by one: the last of them says how many there are. */
const PLACES_TOLD = 4;

/** Events without their time at the tempo, and slurs over a string at any; tightest first, each written place once. */
export function tempoFindings(input: FindingInput): Finding[] {
  const { check, arm } = input.figures;
  const events: TempoEvent[] = [];
  for (const [index, list] of check.events.entries()) {
    const crossing = arm.crossings[index] ?? null;
    const slurSkips = crossing !== null && crossing.inSlur && crossing.skips > 0;
    if (!slurSkips && (check.headroom[index] ?? 1) >= 1) continue;
    for (const event of list) {
      const crossed = event.kind === 'crossing' ? crossing : null;
      const skipsInSlur = crossed !== null && slurSkips;
      if (event.availableMs >= event.neededMs && !skipsInSlur) continue;
      const code = skipsInSlur ? 'slur-skips-string' : TEMPO_CODES[event.kind];
      events.push({ ...event, code, index, crossing: crossed, standsTo: event.ceilingBpm });
    }
  }
  events.sort((a, b) => a.standsTo - b.standsTo || a.index - b.index);
  const placesOf = new Map<TempoEvent['code'], Map<string, TempoEvent>>();
  for (const event of events) {
    const places = placesOf.get(event.code) ?? new Map<string, TempoEvent>();
    placesOf.set(event.code, places);
    // A run of them in one bar is one place: the tightest of it is told.
    const { part, bar, note } = input.unrolled.notes[event.index]!;
    const place = `${part} ${bar} ${note.link === 'slur' ? 'slur' : ''}`;
    if (!places.has(place)) places.set(place, event);
  }
  const told = [...placesOf.values()].flatMap((places) => {
    const shown = [...places.values()].slice(0, PLACES_TOLD);
    return shown.map((event, i) => ({ event, others: i === shown.length - 1 ? places.size - shown.length : 0 }));
  });
  told.sort((a, b) => a.event.standsTo - b.event.standsTo || a.event.index - b.event.index);
  return told.map(({ event, others }) => tempoFinding(input, event, others));
}

type TempoCode = Extract<Finding, { readonly standsTo: BeatsPerMinute }>['code'];

/** What an event without its time is called; ornaments are told apart by their kind. */
const TEMPO_CODES: Record<TimedEvent['kind'], TempoCode> = {
  stroke: 'stroke-too-fast',
  crossing: 'crossing-too-fast',
  hop: 'hop-too-fast',
  barre: 'hop-too-fast',
  shift: 'shift-too-fast',
  retake: 'retake-too-fast',
  'bowed-triplet': 'ornament-too-fast',
  cut: 'ornament-too-fast',
  flick: 'ornament-too-fast',
  'short-roll': 'ornament-too-fast',
  'long-roll': 'ornament-too-fast',
  pulse: 'ornament-too-fast',
  grace: 'ornament-too-fast',
  slide: 'ornament-too-fast',
  turn: 'ornament-too-fast',
};

interface TempoEvent extends TimedEvent {
  readonly code: TempoCode;
  readonly index: number;
  readonly crossing: Crossing | null;
  readonly standsTo: BeatsPerMinute;
}

function tempoFinding(input: FindingInput, event: TempoEvent, others: number): Finding {
  const { unrolled, settings } = input;
  const { code, kind, index, crossing, availableMs, neededMs, standsTo } = event;
  const { note } = unrolled.notes[index]!;
  const isBetween = crossing !== null || kind === 'hop' || kind === 'barre' || kind === 'shift';
  const before = isBetween ? unrolled.notes[index - 1]!.note : note;
  const [from, to] = crossing
    ? [planeName(crossing.from), planeName(crossing.to)]
    : kind === 'shift' || kind === 'hop' || kind === 'barre'
      ? [before, note].map(({ id }) => handWords(input, id, kind))
      : ['', ''];
  return {
    code,
    event: kind,
    severity: standsTo < settings.bpm ? 'problem' : 'care',
    ids: isBetween ? [before.id, note.id] : [note.id],
    spot: spotOf(input, isBetween ? index - 1 : index),
    from: from!,
    to: to!,
    inSlur: crossing?.inSlur ?? false,
    degrees: crossing?.turnDegrees ?? 0,
    recent: crossing ? recentBefore(input, crossing, index, neededMs) : 0,
    availableMs,
    neededMs,
    standsTo,
    others,
    mends: [...handMends(input, event), ...tempoMends(input, index, standsTo)].slice(0, MENDS_OFFERED),
  };
}

/** How many other crossings close before one make it need more. */
function recentBefore(
  { figures, settings }: FindingInput,
  crossing: Crossing,
  index: number,
  neededMs: number,
): number {
  const inSlur = figures.bowed[index]!.link === 'slur';
  const alone = crossingNeeds({ ...crossing, inSlur }, settings.limits, settings.schools.skips);
  return Math.round((neededMs / alone - 1) / DENSITY.each);
}

/** The string of a hop's end, or the position of a shift's. */
function handWords({ fingers }: FindingInput, id: string, kind: 'hop' | 'barre' | 'shift'): string {
  const { place, position } = fingers.get(id)!;
  return kind === 'shift' ? String(position ?? '') : place;
}

/** Splitting or joining at the note or beside it, where that lifts the place itself; else a slower tempo. */
function tempoMends(input: FindingInput, index: number, standsTo: BeatsPerMinute): Mend[] {
  const { unrolled, figures, settings } = input;
  const mends = [index, index + 1].flatMap((at): Mend[] => {
    const played = unrolled.notes[at];
    if (at === 0 || !played || played.note.linkOnPass || isInsideTuplet(played.note)) return [];
    const { link } = figures.bowed[at]!;
    const joins = link === 'change';
    const joined = joiningLink(unrolled.notes[at - 1]!.note, played.note, played.restBefore.n > 0);
    const edits = [{ id: played.note.id, link: joins ? joined : ('change' as const), pass: null }];
    const trial = input.attempt(edits);
    const worst = trial.ceilingAt([index, at]);
    if (worst <= standsTo + 1e-9) return [];
    const gain = { of: 'spot' as const, bpm: Number.isFinite(worst) ? worst : null };
    return [mendBy(input, { deed: joins ? 'join' : 'split', edits }, { outcome: trial, gain })];
  });
  mends.sort((a, b) => (b.ceilingBpm ?? Infinity) - (a.ceilingBpm ?? Infinity));
  const ceiling = figures.check.ceiling?.ceilingBpm ?? null;
  const slower: Mend[] = ceiling !== null && ceiling < settings.bpm ? [mendBy(input, { deed: 'slower' })] : [];
  return [...mends, ...slower].slice(0, MENDS_OFFERED);
}
