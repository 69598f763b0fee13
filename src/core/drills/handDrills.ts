import { doublings } from '#core/drones';
import { awkwardSpots, scaleOnString } from '#core/ground';
import { midiOf } from '#core/pitch';
import { handOf, type TuneReport } from '#core/report';
import { type Place, PLACES } from '#core/tune';
import { beside, fingersAround, tightestOf, upAndDown } from './bowDrills';
import { SHORT_MINUTES, silence, SLOW, stopped, those } from './drillScene';
import type { SmallNote } from './smallTune';
import type { DrillCause, DrillMaker, DrillScene, Within } from './tuneDrill';

const by = (index: number, { unrolled }: TuneReport, figure?: number): DrillCause => ({
  by: 'event',
  note: unrolled.notes[index]!.note.id,
  at: index,
  ...(figure === undefined ? {} : { figure: Math.round(figure) }),
});

/** Written notes that are looked at. */
const idsWithin = ({ unrolled }: TuneReport, within: Within): ReadonlySet<string> =>
  new Set(unrolled.notes.filter(({ index }) => within(index)).map(({ note }) => note.id));

/** The string on which the note of a cause is stopped, or another. */
const placeOf = ({ report: { fingers } }: DrillScene, { note }: DrillCause, other: Place): Place =>
  (note === undefined ? undefined : fingers.get(note)?.place) ?? other;

const doublingApproach: DrillMaker = {
  kind: 'doubling-approach',
  cause: (report, within) => {
    const { tune, unrolled, fingers, timing, settings } = report;
    const ids = idsWithin(report, within);
    const first = doublings(tune, unrolled, fingers, timing.durations, settings.hand).find(({ id }) => ids.has(id));
    return first ? { by: 'event', note: first.id, name: first.open } : null;
  },
  stages: (scene, cause) => {
    const strings = PLACES.slice(1).filter((place) => cause.name === undefined || place === cause.name);
    return strings.flatMap((open) => {
      const lower = beside(open, -1)!;
      const openPitch = scene.open(open);
      const stops = scene.scale(lower);
      const unison = openPitch && stops.find((stop) => midiOf(stop.pitch) === midiOf(openPitch.pitch!));
      if (!unison || unison.finger === 0) return [];
      const approaches = stops.filter(({ finger }) => finger > 0 && finger < unison.finger);
      const note = stopped(unison, 4, { drone: 'upper' });
      return those([
        ...approaches.map((from) =>
          scene.stage('slide-from', [stopped(from, 4), note], { bpm: SLOW, minutes: SHORT_MINUTES }),
        ),
        scene.stage('both-pitches', [note, silence(4)], { bpm: SLOW, minutes: SHORT_MINUTES }),
      ]);
    });
  },
};

/** A finger that stops two neighbour strings: two stops of the key at one place. */
function barreOf(scene: DrillScene, from: Place): [SmallNote, SmallNote] | null {
  for (const place of [from, ...PLACES]) {
    const upper = beside(place, 1);
    if (!upper) continue;
    for (const stop of scene.scale(place)) {
      const other = scene
        .scale(upper)
        .find(({ finger, semitones }) => finger === stop.finger && semitones === stop.semitones);
      if (other && stop.finger > 0) return [stopped(stop, 2), stopped(other, 2)];
    }
  }
  return null;
}

const oneFingerAcross: DrillMaker = {
  kind: 'one-finger-across',
  cause: (report, within) => {
    const barre = tightestOf(report, 'barre', within);
    if (barre) return barre.cause;
    const index = handOf(report).findIndex(({ isBarre }, i) => isBarre && within(i));
    return index < 0 ? null : by(index, report);
  },
  stages: (scene, cause) => {
    const pair = barreOf(scene, placeOf(scene, cause, 'D'));
    if (!pair) return [];
    const [low, high] = pair;
    return those([
      scene.stage('across-short', [low, high], { way: 'plucked', bpm: SLOW, minutes: SHORT_MINUTES }),
      scene.stage('both-pitches', [low, high, high, low], { bpm: SLOW, minutes: SHORT_MINUTES }),
      scene.inTune(cause.note, { minutes: SHORT_MINUTES }),
    ]);
  },
};

/** Spans of first position from which on one is a stretch, in mm. A guess. */
const STRETCH_MM = 60;

const stretchPair: DrillMaker = {
  kind: 'stretch-pair',
  cause: (report, within) => {
    const spans = handOf(report).map(({ spanMm }, i) => (within(i) ? (spanMm ?? 0) : 0));
    const widest = spans.indexOf(Math.max(0, ...spans));
    return widest >= 0 && spans[widest]! >= STRETCH_MM ? by(widest, report, spans[widest]) : null;
  },
  stages: (scene, cause) =>
    // From the easiest string to the hardest: the arm turns further with each.
    [...PLACES]
      .reverse()
      .flatMap((place) => {
        const stops = scene.scale(place).filter(({ finger }) => finger > 0);
        const [low, high] = [stops[0], stops[stops.length - 1]];
        if (!low || !high || low.finger === high.finger) return [];
        return those([
          scene.stage('string-by-string', [stopped(low, 2), stopped(high, 2)], { bpm: SLOW, minutes: SHORT_MINUTES }),
        ]);
      })
      .concat(those([scene.inTune(cause.note, { minutes: SHORT_MINUTES })])),
};

const shift: DrillMaker = {
  kind: 'shift',
  cause: (report, within) => tightestOf(report, 'shift', within)?.cause ?? null,
  stages: (scene, cause) => {
    const place = placeOf(scene, cause, 'E');
    const first = scene.scale(place).find(({ finger }) => finger === 1);
    const third = scene.scale(place).find(({ finger }) => finger === 3);
    if (!first || !third) return [];
    // First finger, and the same finger where the third lay: a hand in third position.
    const guide: SmallNote = { pitch: third.pitch, eighths: 2, place, finger: 1, position: 3 };
    const base = stopped(first, 2, { position: 1 });
    return those([
      scene.stage('by-guide-note', [base, guide, { ...guide, eighths: 4 }, base], { bpm: SLOW }),
      scene.stage('direct', [base, { ...guide, eighths: 2 }], { bpm: SLOW }),
      scene.stage('audible-slide', [base, { ...guide, link: 'slur' }], { bpm: SLOW }),
      scene.inTune(cause.note),
    ]);
  },
};

const fallingRun: DrillMaker = {
  kind: 'falling-run',
  cause: (report, within) => {
    const index = handOf(report).findIndex(({ sets }, i) => sets !== null && within(i));
    return index < 0 ? null : by(index, report, handOf(report)[index]!.sets!.length);
  },
  stages: (scene, cause) => {
    const place = placeOf(scene, cause, 'A');
    const down = [...scene.scale(place)]
      .filter(({ finger }) => finger < 4)
      .reverse()
      .map((stop) => stopped(stop, 1));
    return those([
      down.length > 2 ? scene.stage('pluck', down, { way: 'plucked', bpm: SLOW }) : null,
      down.length > 2 ? scene.stage('set-then-lift', down, { bpm: Math.max(SLOW, 0.6 * scene.quarters) }) : null,
      scene.inTune(cause.note),
    ]);
  },
};

const hop: DrillMaker = {
  kind: 'hop',
  cause: (report, within) => tightestOf(report, 'hop', within)?.cause ?? null,
  stages: (scene, cause) => {
    const own = fingersAround(scene, cause);
    const [low, high] = [scene.scale('D'), scene.scale('A')].map((stops) => stops.find(({ finger }) => finger === 2));
    const pair = own.length === 2 ? own : low && high ? [stopped(low, 2), stopped(high, 2)] : [];
    if (pair.length < 2) return [];
    const [a, b] = pair as [SmallNote, SmallNote];
    const accented = (note: SmallNote): SmallNote => ({ ...note, marks: ['accent'] });
    return those([
      scene.stage('pluck', [a, b], { way: 'plucked', bpm: SLOW }),
      scene.stage('light-hop', [accented(a), silence(2), b, b], { bpm: SLOW }),
      scene.stage('no-stop', [a, b], { bpm: Math.max(SLOW, 0.6 * scene.quarters) }),
      scene.inTune(cause.note),
    ]);
  },
};

const fingerBeforeBow: DrillMaker = {
  kind: 'finger-before-bow',
  cause: (report, within) => {
    const free = handOf(report).map(({ preparation }, i) => (within(i) ? (preparation ?? Infinity) : Infinity));
    const least = free.indexOf(Math.min(...free));
    return least >= 0 && free[least]! < Infinity ? by(least, report, 1000 * free[least]!) : null;
  },
  stages: (scene, cause) => {
    const stops = scene.scale(placeOf(scene, cause, 'D')).filter(({ finger }) => finger < 4);
    const notes = stops.length > 1 ? upAndDown(stops) : [];
    return those([
      notes.length > 0 ? scene.stage('pluck', notes, { way: 'plucked', bpm: SLOW }) : null,
      notes.length > 0 ? scene.stage('bow', notes, { bpm: Math.max(SLOW, 0.6 * scene.quarters) }) : null,
      scene.inTune(cause.note, { way: 'plucked' }),
      scene.inTune(cause.note),
    ]);
  },
};

const toneMatch: DrillMaker = {
  kind: 'tone-match',
  cause: (report) => {
    const { tune, settings } = report;
    const scale = PLACES.flatMap((place) => scaleOnString(tune.key, place, tune.tuning, settings.instrument));
    const spots = awkwardSpots(scale, settings.instrument.stringLengthMm);
    return spots[0] ? { by: 'key', name: spots[0].kind, figure: spots.length } : null;
  },
  stages: (scene) =>
    PLACES.flatMap((place) => {
      const notes = scene
        .scale(place)
        .filter(({ finger }) => finger > 0)
        .flatMap((stop) => [stopped(stop, 4), silence(4)]);
      return notes.length > 0 ? those([scene.stage('own-tone', notes, { bpm: SLOW })]) : [];
    }),
};

export const HAND_DRILLS: readonly DrillMaker[] = [
  doublingApproach,
  oneFingerAcross,
  stretchPair,
  shift,
  fallingRun,
  hop,
  fingerBeforeBow,
  toneMatch,
];
