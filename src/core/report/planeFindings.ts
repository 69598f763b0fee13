import { type Crossing, planeName } from '#core/crossing';
import { isConsonant, midiOf } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import { type NoteEdit, withNoteEdits } from './edits';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { mendBy, outcomeOf } from './mend';

/** Crossings of a passage from which it is worth staying on both strings. */
const MIN_CROSSINGS = 3;

/** What the planes offer or ask for beside the crossings themselves. */
export function planeFindings(input: FindingInput): Finding[] {
  return [...onePlaneFindings(input), ...skipFindings(input)];
}

interface PairRun {
  readonly lower: Place;
  readonly from: number;
  readonly to: number;
  readonly crossings: number;
}

/**
 * Passages on two neighbour strings, three crossings or more, where the open other string agrees with every note: the
 * melody changes string, the plane need not. The longest is told, the others counted.
 * Time O(n), and one whole count of figures for the mend.
 */
function onePlaneFindings(input: FindingInput): Finding[] {
  const { unrolled } = input;
  const known = new Set<string>();
  const runs = pairRuns(input).filter(({ from }) => {
    const { id } = unrolled.notes[from]!.note;
    return !known.has(id) && known.add(id);
  });
  runs.sort((a, b) => b.crossings - a.crossings || a.from - b.from);
  const [longest] = runs;
  if (!longest) return [];
  const notes = unrolled.notes.slice(longest.from, longest.to);
  const ids = [...new Set(notes.map(({ note }) => note.id))];
  const edits = ids.map((id): NoteEdit => {
    const place = input.fingers.get(id)!.place;
    return { id, drone: place === longest.lower ? 'upper' : 'lower' };
  });
  const after = input.recompute(withNoteEdits(input.tune, edits)).figures;
  const degreesSaved = input.figures.arm.sums.armDegrees - after.arm.sums.armDegrees;
  const mend = mendBy(
    input,
    { deed: 'hold-pair', notes: edits },
    { outcome: outcomeOf(after), gain: { of: 'arm', degreesSaved }, index: longest.from },
  );
  return [
    {
      code: 'one-plane',
      severity: 'note',
      ids,
      spot: spotOf(input, longest.from),
      pair: `${longest.lower} and ${PLACES[PLACES.indexOf(longest.lower) + 1]!}`,
      crossings: longest.crossings,
      others: runs.length - 1,
      mends: [mend],
    },
  ];
}

/** Strings on which a note lies or with which it agrees: bit k stands for the pair of strings k and k + 1. */
function pairsThatFit({ unrolled, figures, tune, fingers }: FindingInput): Uint8Array {
  const open = tune.tuning.map(midiOf);
  const fits = new Uint8Array(unrolled.notes.length);
  for (const [i, { note }] of unrolled.notes.entries()) {
    if (figures.arm.planes[i]?.length !== 1) continue;
    const string = PLACES.indexOf(fingers.get(note.id)!.place);
    const midi = midiOf(note.pitch);
    const [above, below] = [open[string + 1], open[string - 1]];
    if (above !== undefined && isConsonant(midi - above)) fits[i]! |= 1 << string;
    if (below !== undefined && isConsonant(midi - below)) fits[i]! |= 1 << (string - 1);
  }
  return fits;
}

function pairRuns(input: FindingInput): PairRun[] {
  const { unrolled, figures } = input;
  const { crossings: crossed } = figures.arm;
  const fits = pairsThatFit(input);
  const runs: PairRun[] = [];
  for (const [k, lower] of PLACES.slice(0, -1).entries()) {
    const bit = 1 << k;
    let from = -1;
    let crossings = 0;
    for (let i = 0; i <= fits.length; i++) {
      const isOpen = from >= 0;
      const goesOn = i < fits.length && (fits[i]! & bit) !== 0;
      const isOnePass = i > 0 && unrolled.notes[i]?.passIndex === unrolled.notes[i - 1]!.passIndex;
      if (isOpen && goesOn && isOnePass) {
        if (crossed[i]) crossings += 1;
        continue;
      }
      if (crossings >= MIN_CROSSINGS) runs.push({ lower, from, to: i, crossings });
      from = goesOn ? i : -1;
      crossings = 0;
    }
  }
  return runs;
}

/**
 * Crossings over a string at a bow change, where strokes stay on the string: what is swept over may sound. The first is
 * told, the others counted. Off the string the bow is lifted over it, and this is no matter.
 */
function skipFindings(input: FindingInput): Finding[] {
  const { unrolled, figures, settings } = input;
  if (settings.schools.skips === 'off-string') return [];
  const skips: { crossing: Crossing; i: number }[] = [];
  for (const [i, crossing] of figures.arm.crossings.entries())
    if (crossing && crossing.skips > 0 && figures.bowed[i]!.link === 'change') skips.push({ crossing, i });
  const [first] = skips;
  if (!first) return [];
  const { note } = unrolled.notes[first.i]!;
  const edits = [{ id: note.id, link: 'retake' as const, pass: null }];
  const trial = input.attempt(edits);
  return [
    {
      code: 'skip-may-sound',
      severity: 'note',
      ids: [unrolled.notes[first.i - 1]!.note.id, note.id],
      spot: spotOf(input, first.i - 1),
      from: planeName(first.crossing.from),
      to: planeName(first.crossing.to),
      others: new Set(skips.map(({ i }) => unrolled.notes[i]!.note.id)).size - 1,
      mends: note.linkOnPass ? [] : [mendBy(input, { deed: 'retake', edits }, { outcome: trial })],
    },
  ];
}
