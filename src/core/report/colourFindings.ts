import { lockConflicts } from '#core/bowing';
import { doubleStops, type DroneScene, droneScene, openDrones } from '#core/drones';
import { type Obstacle, type Ornament, ornamentFacts, ORNAMENTS, swellLast } from '#core/ornaments';
import { intervalName, pitchName } from '#core/pitch';
import { TRIPLET_TIME, wholeNoteSeconds } from '#core/tempo';
import { type LinkEdit, type NoteEdit, withNoteEdits } from './edits';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { turnMends } from './lockFindings';
import { type Mend, mendBy, type NoteDeed, outcomeOf } from './mend';

/** Ornaments that do not fit their note, and drones that grate without resolving. Nothing is looked at in a plain tune. */
export function colourFindings(input: FindingInput): Finding[] {
  const { tune, unrolled, fingers, settings } = input;
  if (!unrolled.notes.some(({ note }) => note.marks ?? note.drone)) return [];
  const scene = droneScene(tune, unrolled, fingers, settings.beat, settings.hand);
  return [...ornamentFindings(input, scene), ...droneFindings(input, scene)];
}

interface Misfit {
  readonly index: number;
  readonly ornament: Ornament;
  readonly obstacle: Obstacle;
}

/** The first place of each kind of ornament and obstacle is told, the others counted; too little time is told elsewhere. */
function ornamentFindings(input: FindingInput, drones: DroneScene): Finding[] {
  const { unrolled, figures, settings, durations } = input;
  const tripletSeconds = TRIPLET_TIME * wholeNoteSeconds(settings.bpm, settings.beat);
  const scene = { drones, bowed: figures.bowed, durations, limits: settings.limits, tripletSeconds };
  const places = new Map<string, { first: Misfit; ids: Set<string> }>();
  for (const { index, note } of unrolled.notes) {
    if (!note.marks) continue;
    for (const ornament of ORNAMENTS) {
      if (!note.marks.includes(ornament)) continue;
      const obstacle = ornamentFacts(scene, index, ornament).obstacles.find((found) => found !== 'too-short');
      if (!obstacle) continue;
      const key = `${ornament} ${obstacle}`;
      const known = places.get(key);
      if (known) known.ids.add(note.id);
      else places.set(key, { first: { index, ornament, obstacle }, ids: new Set([note.id]) });
    }
  }
  return [...places.values()].map(({ first: { index, ornament, obstacle }, ids }): Finding => {
    const { id } = unrolled.notes[index]!.note;
    const off: NoteEdit = { id, unmark: ornament };
    const mends = [tried(input, index, 'leave-off', [off, ...strings(drones, index, ornament)])];
    // A slide without room begins as a touch and grows.
    if (obstacle === 'no-room') mends.unshift(tried(input, index, 'press-in', [off, { id, mark: 'pressed-in' }]));
    if (obstacle === 'in-slur') mends.unshift(splitFor(input, index));
    if (obstacle === 'not-up-bow') mends.unshift(...upBowMends(input, id));
    return {
      code: 'ornament-misfits',
      severity: 'care',
      ids: [id],
      spot: spotOf(input, index),
      ornament,
      obstacle,
      others: ids.size - 1,
      mends,
    };
  });
}

/** With a closing swell go the strings that its two notes took in. */
function strings(drones: DroneScene, index: number, ornament: Ornament): NoteEdit[] {
  if (ornament !== 'closing-swell') return [];
  const last = swellLast(drones, index);
  return [index, ...(last === null ? [] : [last])].map((i) => ({ id: drones.unrolled.notes[i]!.note.id, drone: null }));
}

/** Edits of links that bring a note out on an up-bow on every pass, against no more locks than now. */
function upBowMends(input: FindingInput, id: string): Mend[] {
  const { unrolled, figures } = input;
  const played = unrolled.notes.filter(({ note }) => note.id === id).map(({ index }) => index);
  const conflicts = lockConflicts(unrolled, figures.bowed).length;
  return turnMends(
    input,
    id,
    played.filter((index) => figures.bowed[index]!.bow !== 'up'),
    (bowed) =>
      played.every((index) => bowed[index]!.bow === 'up') && lockConflicts(unrolled, bowed).length <= conflicts,
  );
}

/** The slur split before the note and after it, as far as it goes on there. */
function splitFor(input: FindingInput, index: number): Mend {
  const { unrolled, figures } = input;
  const edits = [index, index + 1].flatMap((at): LinkEdit[] =>
    (figures.bowed[at]?.inStroke ?? 1) > 1 ? [{ id: unrolled.notes[at]!.note.id, link: 'change', pass: null }] : [],
  );
  return mendBy(input, { deed: 'split', edits });
}

/** The roughest drone that is sharp and does not resolve, the others counted; none is forbidden. */
function droneFindings(input: FindingInput, scene: DroneScene): Finding[] {
  const { unrolled, settings } = input;
  const sharp = doubleStops(scene, settings.instrument.stringLengthMm).filter(
    ({ index, class: own, resolves }) => own === 'sharp' && !resolves && unrolled.notes[index]!.note.drone,
  );
  sharp.sort((a, b) => b.rank - a.rank || a.index - b.index);
  const [worst] = sharp;
  if (!worst) return [];
  const { note } = unrolled.notes[worst.index]!;
  const [best] = openDrones(scene, worst.index);
  const isOther = best !== undefined && best.kind !== note.drone && best.rank < worst.rank;
  const mends = [
    ...(isOther ? [tried(input, worst.index, 'other-drone', [{ id: note.id, drone: best.kind }])] : []),
    tried(input, worst.index, 'no-drone', [{ id: note.id, drone: null }]),
  ];
  return [
    {
      code: 'drone-grates',
      severity: 'note',
      ids: [note.id],
      spot: spotOf(input, worst.index),
      drone: pitchName(worst.pitch),
      interval: intervalName(worst.pitch, note.pitch).replace(/ (up|down)$/, ''),
      rank: worst.rank,
      bestRank: isOther ? best.rank : worst.rank,
      others: new Set(sharp.map(({ index }) => unrolled.notes[index]!.note.id)).size - 1,
      mends,
    },
  ];
}

function tried(input: FindingInput, index: number, deed: NoteDeed, notes: readonly NoteEdit[]): Mend {
  const { figures } = input.recompute(withNoteEdits(input.tune, notes));
  return mendBy(input, { deed, notes }, { outcome: outcomeOf(figures), index });
}
