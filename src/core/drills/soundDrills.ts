import type { TuneReport } from '#core/report';
import { type NoteMark, type Place, PLACES } from '#core/tune';
import { beside } from './bowDrills';
import { SHORT_MINUTES, silence, SLOW, stopped, those } from './drillScene';
import type { SmallNote } from './smallTune';
import type { DrillCause, DrillMaker, DrillScene, Within } from './tuneDrill';

/** The first note with one of some marks, and how many there are. */
function marked({ unrolled }: TuneReport, within: Within, ...marks: readonly NoteMark[]): DrillCause | null {
  const notes = new Map(
    unrolled.notes
      .filter(({ note, index }) => within(index) && note.marks?.some((mark) => marks.includes(mark)))
      .map(({ note }) => [note.id, note]),
  );
  const [first] = notes.values();
  return first ? { by: 'mark', note: first.id, figure: notes.size } : null;
}

/** The first note with a second string beside it, and how many there are. */
function doubled({ unrolled }: TuneReport, within: Within): DrillCause | null {
  const ids = new Set(
    unrolled.notes
      .filter(({ index }) => within(index))
      .filter(({ note }) => note.drone !== undefined || (note.stops?.length ?? 0) > 0)
      .map(({ note }) => note.id),
  );
  const [first] = ids;
  return first === undefined ? null : { by: 'mark', note: first, figure: ids.size };
}

/** The lower string of the pair that a cause is about. */
function pairOf({ report: { fingers, unrolled } }: DrillScene, { note }: DrillCause): [Place, Place] {
  const own = unrolled.notes.find((played) => played.note.id === note)?.note;
  const place = note === undefined ? undefined : fingers.get(note)?.place;
  const lower = place === undefined ? 'D' : own?.drone === 'lower' ? beside(place, -1) : place;
  const upper = lower && beside(lower, 1);
  return lower && upper ? [lower, upper] : ['D', 'A'];
}

/** The open pair as one sound: the lower string with the upper beside it. */
const openPair = (scene: DrillScene, lower: Place, eighths: number): SmallNote | null => {
  const note = scene.open(lower);
  return note && beside(lower, 1) && scene.open(beside(lower, 1)!) ? { ...note, eighths, drone: 'upper' } : null;
};

const pairPlane: DrillMaker = {
  kind: 'pair-plane',
  cause: (report, within) => {
    const own = new Set(report.unrolled.notes.filter(({ index }) => within(index)).map(({ note }) => note.id));
    const plane = report.findings.find(({ code, ids }) => code === 'one-plane' && own.has(ids[0]!));
    return plane ? { by: 'bowing', note: plane.ids[0]!, figure: plane.ids.length } : doubled(report, within);
  },
  stages: (scene, cause) => {
    const [lower, upper] = pairOf(scene, cause);
    const next = beside(lower, 1) && beside(upper, 1) ? upper : beside(lower, -1)!;
    const above = scene.scale(upper).filter(({ finger }) => finger > 0 && finger < 4);
    const below = scene.scale(lower).filter(({ finger }) => finger > 0 && finger < 4);
    return those([
      scene.stage('pair-short', [openPair(scene, lower, 1), openPair(scene, lower, 1)], { bpm: SLOW }),
      scene.stage('pair-long', [openPair(scene, lower, 4), openPair(scene, lower, 4)], { bpm: SLOW }),
      scene.stage('pair-to-pair', [openPair(scene, lower, 4), openPair(scene, next, 4)], { bpm: SLOW }),
      scene.stage(
        'upper-fingers',
        above.map((stop) => stopped(stop, 2, { drone: 'lower' })),
        { bpm: SLOW },
      ),
      scene.stage(
        'lower-fingers',
        below.map((stop) => stopped(stop, 2, { drone: 'upper' })),
        { bpm: SLOW },
      ),
      scene.inTune(cause.note),
    ]);
  },
};

/** One string bowed alone while each finger in turn comes down on its neighbour and is lifted: said over the staff. */
function fingersBeside(scene: DrillScene, bowed: Place, silent: Place): (SmallNote | null)[] {
  const open = scene.open(bowed);
  const fingers = [...new Set(scene.scale(silent).map(({ finger }) => finger))].filter((finger) => finger > 0);
  if (!open || fingers.length === 0) return [null];
  const half = { ...open, eighths: 4 };
  return fingers.flatMap((finger) => [
    { ...half, chord: `${finger} on ${silent}` },
    { ...half, chord: 'lift' },
  ]);
}

const noBump: DrillMaker = {
  kind: 'no-bump',
  cause: doubled,
  stages: (scene, cause) => {
    const pairs = cause.note === undefined ? PLACES.slice(0, 3) : [pairOf(scene, cause)[0]];
    return pairs
      .flatMap((lower) => {
        const upper = beside(lower, 1)!;
        return those([
          scene.stage('bow-lower-alone', fingersBeside(scene, lower, upper), { bpm: SLOW }),
          scene.stage('bow-upper-alone', fingersBeside(scene, upper, lower), { bpm: SLOW }),
        ]);
      })
      .concat(those([scene.inTune(cause.note)]));
  },
};

const bowedTriplet: DrillMaker = {
  kind: 'bowed-triplet',
  cause: (report, within) => marked(report, within, 'bowed-triplet'),
  stages: (scene, cause) => {
    const open = scene.open('A');
    const note = (eighths: number, marks?: readonly NoteMark[]): SmallNote | null =>
      open && { ...open, eighths, ...(marks ? { marks } : {}) };
    const triplet = note(2, ['bowed-triplet']);
    return those([
      scene.stage('press-release', [note(2, ['accent']), silence(2)], { bpm: SLOW }),
      scene.stage('from-up-bow', [triplet, note(2)], { bpm: SLOW, start: 'up', asIs: true }),
      scene.stage('both-bows', [triplet, note(2), triplet, note(2)], { bpm: SLOW }),
      scene.inTune(cause.note),
    ]);
  },
};

const pulse: DrillMaker = {
  kind: 'pulse',
  cause: (report, within) => marked(report, within, 'pulse'),
  stages: (scene, cause) => {
    const open = scene.open('D');
    const swell = (eighths: number, ...marks: NoteMark[]): SmallNote | null => open && { ...open, eighths, marks };
    const plain = open && { ...open, eighths: 2 };
    return those([
      scene.stage('swell-slow', [swell(8, 'pulse'), swell(8, 'pulse')], { bpm: SLOW }),
      scene.stage('swell-return', [swell(4, 'pulse'), swell(4, 'pulse')], { bpm: SLOW }),
      scene.stage('swell-offbeat', [plain, swell(2, 'pulse'), plain, swell(2, 'pulse')], {
        bpm: Math.max(SLOW, 0.6 * scene.quarters),
      }),
      scene.inTune(cause.note),
    ]);
  },
};

const flick: DrillMaker = {
  kind: 'flick',
  cause: (report, within) => marked(report, within, 'flick'),
  stages: (scene, cause) => {
    const open = scene.open('A');
    const flicked = (note: SmallNote): SmallNote => ({ ...note, marks: ['flick'] });
    const fingers = scene.scale('A').filter(({ finger }) => finger > 0 && finger < 3);
    return those([
      scene.stage('touch-hold', [open && { ...open, eighths: 8 }], {
        way: 'held-low',
        bpm: SLOW,
        minutes: SHORT_MINUTES,
      }),
      scene.stage('tap-open', [open && flicked({ ...open, eighths: 2 }), open && { ...open, eighths: 2 }], {
        bpm: SLOW,
      }),
      scene.stage(
        'over-fingers',
        fingers.flatMap((stop) => [flicked(stopped(stop, 2)), stopped(stop, 2)]),
        { bpm: SLOW },
      ),
      scene.inTune(cause.note),
    ]);
  },
};

const closingSwell: DrillMaker = {
  kind: 'closing-swell',
  cause: (report, within) => marked(report, within, 'closing-swell'),
  stages: (scene, cause) => {
    const [lower] = pairOf(scene, cause);
    const low = scene.open(lower);
    const pair = openPair(scene, lower, 4);
    return those([
      scene.stage('swell-up', [low && { ...low, eighths: 4, marks: ['pulse'] }, silence(4)], {
        bpm: SLOW,
        start: 'up',
        asIs: true,
      }),
      scene.stage('grab-neighbour', [low && { ...low, eighths: 2 }, pair && { ...pair, link: 'slur' as const }], {
        bpm: SLOW,
        start: 'up',
      }),
      scene.stage('two-string-end', [pair && { ...pair, marks: ['pulse'] }, pair], { bpm: SLOW, start: 'up' }),
      scene.inTune(cause.note),
    ]);
  },
};

const staccato: DrillMaker = {
  kind: 'staccato',
  cause: (report, within) => marked(report, within, 'staccato'),
  stages: (scene, cause) => {
    const open = scene.open('D');
    const short: SmallNote | null = open && { ...open, eighths: 1, marks: ['staccato'] };
    const scale = scene
      .scale('D')
      .filter(({ finger }) => finger < 4)
      .map((stop) => stopped(stop, 1, { marks: ['staccato'] }));
    return those([
      scene.stage('gaps', [short, silence(1), short, silence(1)], { bpm: SLOW }),
      scene.stage('scale', scale, { bpm: Math.max(SLOW, 0.6 * scene.quarters) }),
      scene.inTune(cause.note),
    ]);
  },
};

/** A long note: half a second of a dance, a second of an air is none yet. */
const LONG_SECONDS = 1;

const fade: DrillMaker = {
  kind: 'fade',
  cause: (report, within) => {
    const own = marked(report, within, 'fade');
    if (own || report.tune.danceType !== 'air') return own;
    const { notes } = report.unrolled;
    const last = notes[notes.length - 1];
    return last && within(last.index)
      ? { by: 'bowing', note: last.note.id, figure: Math.round(report.timing.durations[last.index]!) }
      : null;
  },
  stages: (scene, cause) => {
    const open = scene.open('A');
    return those([
      scene.stage('lighter', [open && { ...open, eighths: 8, marks: ['fade'] }], { bpm: SLOW }),
      scene.inTune(cause.note),
    ]);
  },
};

const vibrato: DrillMaker = {
  kind: 'vibrato',
  cause: (report, within) => {
    const own = marked(report, within, 'vibrato', 'vibrato-growing');
    if (own) return own;
    const long = report.unrolled.notes.find(
      ({ index, note }) =>
        within(index) &&
        report.timing.durations[index]! >= LONG_SECONDS &&
        (report.fingers.get(note.id)?.finger ?? 0) > 0,
    );
    return long && report.tune.danceType === 'air'
      ? { by: 'bowing', note: long.note.id, figure: Math.round(report.timing.durations[long.index]!) }
      : null;
  },
  stages: (scene, cause) => {
    const stop = scene.scale('A').find(({ finger }) => finger === 2) ?? scene.scale('A')[1];
    if (!stop) return [];
    const note = (...marks: NoteMark[]) => [stopped(stop, 8, { marks })];
    return those([
      scene.stage('no-vibrato', [stopped(stop, 8)], { bpm: SLOW, minutes: SHORT_MINUTES }),
      scene.stage('slow-wide', note('vibrato'), { bpm: SLOW, minutes: SHORT_MINUTES }),
      scene.stage('quick', note('vibrato'), { bpm: SLOW, minutes: SHORT_MINUTES }),
      scene.stage('ramp', note('vibrato-growing'), { bpm: SLOW, minutes: SHORT_MINUTES }),
      scene.inTune(cause.note),
    ]);
  },
};

export const SOUND_DRILLS: readonly DrillMaker[] = [
  pairPlane,
  noBump,
  bowedTriplet,
  pulse,
  flick,
  closingSwell,
  staccato,
  fade,
  vibrato,
];
