import type { BeatsPerMinute, Fraction } from '#core/base';
import {
  type Disturbance,
  type RoundMend,
  againFrom,
  entryNote,
  gridUnit,
  isInsideTuplet,
  joiningLink,
  linkInFlow,
  lockConflicts,
  recognisePatterns,
  roundMends,
} from '#core/bowing';
import { type Crossing, planeName } from '#core/crossing';
import { DENSITY, type TimedEvent, crossingNeeds } from '#core/tempo';
import { twinKeeper } from '#core/twins';
import type { NoteEvent, Part, Place, Tune } from '#core/tune';
import { barFindings } from './barFindings';
import { bowingFindings } from './bowingFindings';
import { ovalFindings } from './ovalFindings';
import { planeFindings } from './planeFindings';
import { travelFindings } from './travelFindings';
import { colourFindings } from './colourFindings';
import { handMends } from './handMends';
import { belongsToFlip, lockFindings } from './lockFindings';
import { type Finding, type FindingInput, MENDS_OFFERED, type Mend, type Severity, mendBy, placeOf } from './finding';

/** More places of one kind than this are not told one by one: the last of them says how many there are. */
const PLACES_TOLD = 4;
/** Parts beyond these are not told to flip one by one; the ledger names them all. */
const PARTS_TOLD = 12;
/** Mends of the round tried on a tune's locks, where it has any. */
const MENDS_TRIED_ON_LOCKS = 24;
/** Notes of the lowest kind beyond these are not told: what is graver comes first. */
const NOTES_TOLD = 3;

/** All findings of a plan, the gravest first within the order: round, locks, tempo, hair, bars, crossings, bowing, hand, colour. */
export function findFindings(input: FindingInput): Finding[] {
  let notes = 0;
  return lookedFor(input)
    .filter(({ severity }) => severity !== 'note' || ++notes <= NOTES_TOLD)
    .map((finding) => ({ ...finding, mends: worthwhile(input, finding.mends) }));
}

/** Mends that do not make the tune worse: all of them only where there is nothing better. */
function worthwhile({ figures, settings }: FindingInput, mends: readonly Mend[]): readonly Mend[] {
  const { ledger, check } = figures;
  const now = Math.min(settings.bpm, check.ceiling?.ceilingBpm ?? Infinity);
  const isGood = ({ comesRound, ceilingBpm }: Mend) =>
    (comesRound || !ledger.comesRound) && (ceilingBpm ?? Infinity) >= now - 1e-6;
  const better = mends.filter(isGood);
  // To go slower, or to give up what was wished, mends nothing.
  return better.some(({ deed }) => deed !== 'slower' && deed !== 'unlock') ? better : mends;
}

function lookedFor(input: FindingInput): Finding[] {
  return [
    ...roundFindings(input),
    ...lockFindings(input),
    ...tempoFindings(input),
    ...travelFindings(input),
    ...barFindings(input),
    ...ovalFindings(input),
    ...bowingFindings(input),
    ...planeFindings(input),
    ...handFindings(input),
    ...inferredStrings(input),
    ...colourFindings(input),
  ];
}

function roundFindings(input: FindingInput): Finding[] {
  const { unrolled, figures, fingers } = input;
  const { ledger, bowed } = figures;
  if (ledger.comesRound) return [];
  const stringOf = (note: NoteEvent) => fingers.get(note.id)?.place ?? null;
  const keepsPattern = patternKeeper(input);
  const keepsTwin = twinKeeper(input.tune);
  const hasLocks = unrolled.notes.some(({ note }) => note.lock);
  let forAll: Mend[] | null = null;
  const mendsFor = (part: string | null): Mend[] => {
    if (forAll) return forAll;
    const found = roundMends({ unrolled, bowed, part, placeOf: stringOf, keepsPattern, keepsTwin });
    // What a player insists on goes before what disturbs little.
    const keeping = hasLocks
      ? found.slice(0, MENDS_TRIED_ON_LOCKS).filter((mend) => !contradictsLock(input, mend))
      : [];
    const mends = distinctDeeds(keeping.length > 0 ? keeping : found).map((mend) => mendOfRound(input, mend));
    // What brings everything round is the same whichever part it is sought for.
    if (found[0]?.mendsAll) forAll = mends;
    return mends;
  };

  const findings = ledger.flippedParts.slice(0, PARTS_TOLD).flatMap((part): Finding[] => {
    const ofPart = ledger.passes.filter((pass) => pass.part === part);
    const odd = ofPart.findIndex(({ entry }) => entry !== ofPart[0]!.entry);
    const flipped = ofPart[odd]!;
    const cause = turnsSinceEntry(
      input,
      ledger.passes.indexOf(ofPart[odd - 1] ?? flipped),
      ledger.passes.indexOf(flipped),
    );
    const pass = unrolled.passes[ledger.passes.indexOf(flipped)]!;
    const note = unrolled.notes[pass.firstNote]!;
    const inPass = new Set(unrolled.notes.slice(pass.firstNote, pass.endNote).map((played) => played.note.id));
    const changed = ledger.differs.filter(({ id }) => inPass.has(id));
    return [
      {
        code: 'part-flips',
        severity: flipSeverity(input),
        locks: lockConflicts(unrolled, bowed).filter(
          ({ indices }) => unrolled.notes[indices[0]!]!.part === part && belongsToFlip(input, indices),
        ).length,
        ids: [note.note.id],
        place: placeOf(input, note.index),
        part,
        turns: cause,
        changed: changed.length,
        pass: flipped.pass,
        entry: flipped.entry ?? 'down',
        mends: mendsFor(part),
      },
    ];
  });
  if (findings.length > 0 || unrolled.notes.length === 0) return findings;
  const again = againFrom(unrolled)!;
  const { note, pass } = unrolled.notes[again.index]!;
  const back = !again.isHeld && linkInFlow(note, pass) === 'change' ? 1 : 0;
  const turns = bowed.slice(again.index + 1).filter(({ link }) => link === 'change').length + back;
  return [
    {
      code: 'tune-flips-again',
      severity: flipSeverity(input),
      ids: [unrolled.notes[unrolled.notes.length - 1]!.note.id],
      place: placeOf(input, unrolled.notes.length - 1),
      turns,
      mends: mendsFor(null),
    },
  ];
}

/** Where both directions are learned, and in airs, a flip is worth a note and no problem. */
const flipSeverity = ({ tune, settings }: FindingInput): Severity =>
  settings.schools.learning === 'both-directions' || tune.danceType === 'air' ? 'note' : 'problem';

/** Tells whether a note stands in a bar whose links follow a pattern; each part is looked at when it is first asked for. */
function patternKeeper({ tune }: FindingInput): (id: string) => boolean {
  const known = new Map<string, ReadonlySet<string>>();
  let unit: Fraction | undefined;
  return (id) => {
    unit ??= gridUnit(tune);
    const part = tune.parts.find(({ events }) => events.some((event) => event.id === id));
    if (!part) return false;
    const notes = known.get(part.name) ?? patternedNotes(tune, part, unit);
    known.set(part.name, notes);
    return notes.has(id);
  };
}

function patternedNotes(tune: Tune, part: Part, unit: Fraction): Set<string> {
  const runs = recognisePatterns(tune, part.name, unit);
  const bars = new Set(runs.flatMap(({ pattern, barIds }) => (pattern === null ? [] : barIds)));
  const ids = new Set<string>();
  let bar = '';
  for (const event of part.events) {
    if (event.kind === 'bar') bar = event.id;
    else if (bars.has(bar)) ids.add(event.id);
  }
  return ids;
}

const linksOf = ({ edits }: RoundMend) => edits.map(({ id, link, pass }) => ({ id, link, pass }));

/** Whether a mend leaves more locks contradicted than there are now. */
function contradictsLock(input: FindingInput, mend: RoundMend): boolean {
  const { unrolled, figures } = input;
  const { bowed } = input.attempt(linksOf(mend));
  return lockConflicts(unrolled, bowed).length > lockConflicts(unrolled, figures.bowed).length;
}

function mendOfRound(input: FindingInput, round: RoundMend): Mend {
  const [first, second] = round.edits;
  const mend = mendBy(input, first!.deed, linksOf(round));
  const { unrolled } = input;
  const disturbs = new Set<Disturbance>(round.edits.flatMap((edit) => edit.disturbs));
  if (unrolled.notes.some(({ note }) => note.lock) && contradictsLock(input, round)) disturbs.add('lock-contradicted');
  if (!second) return { ...mend, disturbs: [...disturbs] };
  const index = unrolled.notes.findIndex(({ note }) => note.id === second.id);
  return { ...mend, disturbs: [...disturbs], also: { deed: second.deed, place: placeOf(input, index) } };
}

/** Turns of the bow from beat 1 of one pass to beat 1 of a later one. */
function turnsSinceEntry({ unrolled, figures }: FindingInput, from: number, to: number): number {
  const first = entryNote(unrolled, from) ?? 0;
  const last = entryNote(unrolled, to) ?? figures.bowed.length - 1;
  return figures.bowed.slice(first + 1, last + 1).filter(({ link }) => link === 'change').length;
}

/** The least disturbing mend of each deed first, then the rest, up to the number offered. */
function distinctDeeds(mends: readonly RoundMend[]): RoundMend[] {
  const firsts = new Map<string, RoundMend>();
  for (const mend of mends) {
    const deeds = mend.edits.map(({ deed, pass }) => `${deed}${pass === null ? '' : ' once'}`).join(' ');
    if (!firsts.has(deeds)) firsts.set(deeds, mend);
  }
  const chosen = new Set([...firsts.values(), ...mends.slice(0, MENDS_OFFERED)]);
  return [...chosen].slice(0, MENDS_OFFERED);
}

/** Events without their time at the tempo, and slurs over a string at any; tightest first, each written place once. */
function tempoFindings(input: FindingInput): Finding[] {
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
    place: placeOf(input, isBetween ? index - 1 : index),
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
    return [
      { ...mendBy(input, joins ? 'join' : 'split', edits, trial), hereBpm: Number.isFinite(worst) ? worst : null },
    ];
  });
  mends.sort((a, b) => (b.ceilingBpm ?? Infinity) - (a.ceilingBpm ?? Infinity));
  const ceiling = figures.check.ceiling?.ceilingBpm ?? null;
  const slower: Mend[] = ceiling !== null && ceiling < settings.bpm ? [mendBy(input, 'slower', [])] : [];
  return [...mends, ...slower].slice(0, MENDS_OFFERED);
}

function handFindings(input: FindingInput): Finding[] {
  const { unrolled, fingers } = input;
  const found = new Map<string, { code: Finding['code']; ids: string[]; index: number; place: Place }>();
  for (const { index, note } of unrolled.notes) {
    const fingering = fingers.get(note.id)!;
    const { reachable, pinMisfits, extended, stops, goesAgainst } = fingering;
    if (reachable && !pinMisfits && !extended && !goesAgainst && stops.length === 0) continue;
    const codes: ('out-of-reach' | 'stops-out-of-reach' | 'finger-misfits' | 'hand-forbids' | 'extended-fourth')[] = [];
    if (!reachable) codes.push('out-of-reach');
    else if (stops.includes(null)) codes.push('stops-out-of-reach');
    if (pinMisfits) codes.push('finger-misfits');
    if (goesAgainst) codes.push('hand-forbids');
    if (extended) codes.push('extended-fourth');
    for (const code of codes) {
      const entry = found.get(code) ?? { code, ids: [], index, place: fingering.place };
      if (!entry.ids.includes(note.id)) entry.ids.push(note.id);
      found.set(code, entry);
    }
  }
  return [...found.values()].map(({ code, ids, index, place }): Finding => {
    const common = { ids, place: placeOf(input, index), mends: [] };
    if (code === 'extended-fourth') return { code, severity: 'note', string: place, ...common };
    const severity = code === 'out-of-reach' || code === 'hand-forbids' ? 'problem' : 'care';
    return {
      code: code as 'out-of-reach' | 'stops-out-of-reach' | 'finger-misfits' | 'hand-forbids',
      severity,
      ...common,
    };
  });
}

/** Strings that were not said when their notes were called out: told once, until they are confirmed or set otherwise. */
function inferredStrings(input: FindingInput): Finding[] {
  const guessed = input.unrolled.notes.filter(({ note }) => note.marks?.includes('inferred-string'));
  const ids = [...new Set(guessed.map(({ note }) => note.id))];
  if (ids.length === 0) return [];
  const place = placeOf(input, guessed[0]!.index);
  const notes = ids.map((id) => ({ id, unmark: 'inferred-string' as const }));
  const mends = [{ ...mendBy(input, 'confirm-string', []), notes, place }];
  return [{ code: 'string-inferred', severity: 'note', ids, place, notes: ids.length, mends }];
}
