import type { Fraction } from '#core/base';
import {
  againFrom,
  type Disturbance,
  entryNote,
  gridUnit,
  linkInFlow,
  lockConflicts,
  recognisePatterns,
  type RoundMend,
  roundMends,
} from '#core/bowing';
import type { NoteEvent, Part, Tune } from '#core/tune';
import { twinKeeper } from '#core/twins';
import type { Finding, Severity } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { belongsToFlip } from './lockFindings';
import { type Mend, mendBy, MENDS_OFFERED } from './mend';

/** Parts beyond these are not told to flip one by one; the ledger names them all. */
const PARTS_TOLD = 12;
/** Mends of the round tried on a tune's locks, where it has any. */
const MENDS_TRIED_ON_LOCKS = 24;

/** Parts that flip, and a tune that flips when begun again, with what brings all of it round. */
export function roundFindings(input: FindingInput): Finding[] {
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
        spot: spotOf(input, note.index),
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
      spot: spotOf(input, unrolled.notes.length - 1),
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
  const { unrolled } = input;
  const disturbs = new Set<Disturbance>(round.edits.flatMap((edit) => edit.disturbs));
  if (unrolled.notes.some(({ note }) => note.lock) && contradictsLock(input, round)) disturbs.add('lock-contradicted');
  const index = second ? unrolled.notes.findIndex(({ note }) => note.id === second.id) : -1;
  return mendBy(input, {
    deed: first!.deed,
    edits: linksOf(round),
    disturbs: [...disturbs],
    ...(second && { also: { deed: second.deed, spot: spotOf(input, index) } }),
  });
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
