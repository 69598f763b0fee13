import { opposite } from '#core/bowing';
import { flippingSpots, type TwinFigure, twinFigures } from '#core/twins';
import type { LinkEdit } from './edits';
import type { Trial } from './figures';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { type Mend, mendBy } from './mend';

/** Full bars of a part from which its downbeats are worth a word. */
const MIN_BARS = 4;

/** How a plan is bowed as a whole: bars that begin on the up-bow, and equal figures that are bowed unlike. */
export function bowingFindings(input: FindingInput): Finding[] {
  return [...upBowFindings(input), ...unlikeFindings(input)];
}

/**
 * Parts of which most bars begin on an up-bow on their first pass, where bars are wanted on the down-bow: not in airs, and not
 * where the part flips, which is told as such. The first is told, the others counted.
 */
function upBowFindings(input: FindingInput): Finding[] {
  const { tune, unrolled, figures, settings } = input;
  if (settings.schools.downbeat === 'free' || tune.danceType === 'air') return [];
  const flipped = new Set(figures.ledger.flippedParts);
  const counts = new Map<string, { up: number; all: number; first: number }>();
  for (const { index, part, pass, bar, beat } of unrolled.notes) {
    if (pass !== 1 || bar === 0 || beat !== 1 || flipped.has(part)) continue;
    const count = counts.get(part) ?? { up: 0, all: 0, first: index };
    counts.set(part, count);
    count.all += 1;
    if (figures.bowed[index]!.bow === 'up') count.up += 1;
  }
  const told = [...counts].filter(([, { up, all }]) => all >= MIN_BARS && up > all / 2);
  const [first] = told;
  if (!first) return [];
  const [part, { up, all, first: index }] = first;
  const start = opposite(figures.start.direction);
  return [
    {
      code: 'bars-begin-up',
      severity: 'note',
      ids: [unrolled.notes[index]!.note.id],
      spot: spotOf(input, index),
      part,
      up,
      bars: all,
      others: told.length - 1,
      mends: [mendBy(input, { deed: 'start', start }, { outcome: input.attempt([], start) })],
    },
  ];
}

/**
 * Equal figures that the plan bows unlike: at speed a figure learned in two ways is two figures. The one that covers most is
 * told, the others counted; the mend bows all its places like one of them, the one that keeps the round and changes least.
 * Time as for `twinFigures`, and a trial for each way in which the figure told is bowed.
 */
function unlikeFindings(input: FindingInput): Finding[] {
  const { tune, unrolled } = input;
  // Figures that are turned round only, by a shared stroke at their ends, count with the others.
  const unlike = twinFigures(tune).filter(({ isBowedAlike }) => !isBowedAlike);
  const [figure] = unlike;
  if (!figure) return [];
  const ids = figure.spots.map(([note]) => note!.id);
  const index = unrolled.notes.findIndex(({ note }) => note.id === ids[0]);
  if (index < 0) return [];
  return [
    {
      code: 'bowed-unlike',
      severity: 'note',
      ids,
      spot: spotOf(input, index),
      notes: figure.length,
      spots: figure.spots.length,
      flips: Math.min(...figure.spots.map((_, model) => flippingSpots(figure, model).length)),
      others: unlike.length - 1,
      mends: [alikeMend(input, figure)],
    },
  ];
}

/** Places that are bowed alike are one model; of the models the one that keeps the round, else the one that changes least. */
function alikeMend(input: FindingInput, { spots }: TwinFigure): Mend {
  const models = new Map(spots.map((place) => [place.map(({ link }) => link).join(' '), place]));
  const ways = [...models.values()]
    .map((model) =>
      spots.flatMap((place) =>
        place.flatMap((note, i): LinkEdit[] => {
          const { link } = model[i]!;
          return i > 0 && (note.link !== link || note.linkOnPass) ? [{ id: note.id, link, pass: null }] : [];
        }),
      ),
    )
    .sort((a, b) => a.length - b.length);
  let first: { edits: LinkEdit[]; trial: Trial } | null = null;
  for (const edits of ways) {
    const trial = input.attempt(edits);
    if (trial.round.comesRound) return mendBy(input, { deed: 'make-alike', edits }, { outcome: trial });
    first ??= { edits, trial };
  }
  return mendBy(input, { deed: 'make-alike', edits: first!.edits }, { outcome: first!.trial });
}
