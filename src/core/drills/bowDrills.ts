import { applyPattern, findPattern, type Pattern, patternFigures, recognisePatterns } from '#core/bowing';
import type { ScaleStop } from '#core/ground';
import type { TuneReport } from '#core/report';
import { isCompound, type Place, PLACES } from '#core/tune';
import { beatsOf, silence, SLOW, stopped, those } from './drillScene';
import type { SmallNote } from './smallTune';
import type { DrillCause, DrillMaker, DrillScene, DrillStage, StageCode, Within } from './tuneDrill';

/** A string by its place; null beyond the ends. */
export const beside = (place: Place, by: 1 | -1): Place | null => PLACES[PLACES.indexOf(place) + by] ?? null;

/** The tightest event of some kind, with where it is. */
export function tightestOf(
  { figures: { check }, unrolled }: TuneReport,
  kind: string,
  suits: Within,
): { readonly index: number; readonly cause: DrillCause } | null {
  let best: { readonly index: number; readonly room: number; readonly ms: number } | null = null;
  for (const [index, events] of check.events.entries())
    for (const event of events) {
      if (event.kind !== kind || !suits(index)) continue;
      const room = event.availableMs / event.neededMs;
      if (!best || room < best.room) best = { index, room, ms: event.availableMs };
    }
  if (!best) return null;
  const { id } = unrolled.notes[best.index]!.note;
  return {
    index: best.index,
    cause: {
      by: 'event',
      event: kind as NonNullable<DrillCause['event']>,
      note: id,
      at: best.index,
      figure: Math.round(best.ms),
    },
  };
}

/** Up a string's notes and down again, in eighths. */
export function upAndDown(stops: readonly ScaleStop[], eighths = 1): SmallNote[] {
  const up = stops.map((stop) => stopped(stop, eighths));
  return [...up, ...up.slice(1, -1).reverse()];
}

/** The two strings of a crossing in a tune, the one left first. */
function stringsOf({ report }: DrillScene, { at }: DrillCause): [Place, Place] {
  const crossing = at === undefined ? null : report.figures.arm.crossings[at];
  return crossing ? [crossing.from[0]!, crossing.to[crossing.to.length - 1]!] : ['D', 'A'];
}

const usualPattern = ({ tune: { meter } }: TuneReport): string =>
  isCompound(meter) ? 'two-and-one' : meter.num === 3 ? 'waltz-beats' : 'pair-first-shuffle';

const pattern: DrillMaker = {
  kind: 'pattern',
  cause: ({ tune, unrolled }, within) => {
    const parts = new Set(unrolled.notes.filter(({ index }) => within(index)).map(({ part }) => part));
    const runs = recognisePatterns(tune).filter(
      (run) => run.pattern !== null && run.pattern !== 'saw' && parts.has(run.part),
    );
    const longest = runs.reduce<(typeof runs)[0] | null>(
      (one, run) => (run.barIds.length > (one?.barIds.length ?? 1) ? run : one),
      null,
    );
    return longest && { by: 'bowing', name: longest.pattern!, figure: longest.barIds.length };
  },
  stages: (scene, cause) => {
    const own = findPattern(cause.name ?? usualPattern(scene.report)) ?? findPattern('pair-first-shuffle')!;
    const bars = Math.max(1, Math.round((8 * own.meter.num) / own.meter.den));
    const laid = (
      code: StageCode,
      notes: readonly (SmallNote | null)[],
      share: number,
      start?: 'up',
    ): DrillStage | null => {
      const bpm = beatsOf(Math.max(SLOW, share * scene.quarters), own.meter);
      const made = scene.stage(code, notes, { asIs: true, meter: own.meter, bpm, ...(start ? { start } : {}) });
      return made && { ...made, tune: applyPattern(made.tune, own) };
    };
    const open = Array.from({ length: 2 * bars }, () => scene.open('A'));
    const octave = upAndDown([
      ...scene.scale('D').filter(({ finger }) => finger < 4),
      ...scene.scale('A').filter(({ finger }) => finger < 4),
    ]);
    const two = upAndDown(PLACES.flatMap((place) => scene.scale(place).filter(({ finger }) => finger < 4)));
    const full = (notes: readonly SmallNote[]) =>
      Array.from({ length: Math.ceil(notes.length / bars) * bars }, (_, i) => notes[i % notes.length]!);
    return those([
      laid('open-string', open, 0.5),
      ...(flips(own) ? [laid('other-start', open, 0.5, 'up')] : []),
      octave.length > 0 ? laid('scale', full(octave), 0.6) : null,
      two.length > 0 ? laid('scale-two', full(two), 0.6) : null,
      laid('key-figure', full(keyFigure(scene)), 0.7),
      scene.inTune(cause.note),
    ]);
  },
};

const flips = (own: Pattern): boolean => {
  const { parityPerBar, parityPerCycle } = patternFigures(own);
  return parityPerBar === 'odd' || parityPerCycle === 'odd';
};

/** Root, third and fifth of the key as they lie on the two middle strings, up and down. */
export function keyFigure({ report: { tune }, scale }: DrillScene): SmallNote[] {
  const letters = 'CDEFGAB';
  const root = letters.indexOf(tune.key.letter);
  const chord = new Set([0, 2, 4].map((step) => letters[(root + step) % 7]));
  const stops = (['D', 'A'] as const).flatMap((place) =>
    scale(place).filter(({ pitch, finger }) => chord.has(pitch.letter) && finger < 4),
  );
  return stops.length > 1 ? upAndDown(stops) : upAndDown(scale('D').slice(0, 4));
}

const jigAccent: DrillMaker = {
  kind: 'jig-accent',
  cause: ({ tune }) => (isCompound(tune.meter) ? { by: 'bowing', figure: tune.meter.num / 3 } : null),
  stages: (scene, cause) => {
    const meter = { num: 6, den: 8 };
    const bpm = beatsOf(Math.max(SLOW, 0.6 * scene.quarters), meter);
    const group = (pitched: SmallNote | null): (SmallNote | null)[] =>
      pitched ? [0, 1, 2].map((i) => ({ ...pitched, ...(i === 0 ? { marks: ['accent' as const] } : {}) })) : [null];
    const two = [...group(scene.open('D')), ...group(scene.open('A'))];
    return those([
      scene.stage(
        'bar-a-note',
        [scene.open('A')].map((note) => note && { ...note, eighths: 6 }),
        { meter, bpm },
      ),
      scene.stage('stroke-a-note', two, { meter, bpm }),
      scene.stage('stroke-a-note-up', two, { meter, bpm, start: 'up' }),
      scene.inTune(cause.note),
    ]);
  },
};

const turnInSilence: DrillMaker = {
  kind: 'turn-in-silence',
  cause: (report, within) =>
    tightestOf(report, 'crossing', (index) => within(index) && report.figures.bowed[index]!.link === 'change')?.cause ??
    null,
  stages: (scene, cause) => {
    const [one, other] = stringsOf(scene, cause);
    const turn = (code: StageCode, stop: number) => {
      const [a, b] = [scene.open(one), scene.open(other)].map((note) => note && { ...note, eighths: 2 });
      const gap = stop > 0 ? [silence(stop)] : [];
      return scene.stage(code, [a!, ...gap, b!, ...gap], { bpm: SLOW });
    };
    const pairs = [
      scene.open('G'),
      scene.open('D'),
      scene.open('A'),
      scene.open('E'),
      scene.open('A'),
      scene.open('G'),
    ];
    const fingered = fingersAround(scene, cause);
    return those([
      scene.stage(
        'compare-angles',
        pairs.map((note) => note && { ...note, eighths: 4 }),
        { way: 'silent', bpm: SLOW },
      ),
      turn('stop-1', 2),
      turn('stop-half', 1),
      turn('stop-quarter', 0.5),
      turn('no-stop', 0),
      fingered.length > 1 ? scene.stage('with-fingers', fingered, { bpm: Math.max(SLOW, 0.6 * scene.quarters) }) : null,
      scene.inTune(cause.note),
    ]);
  },
};

/** The note of a cause and the one before it, as the tune has them, a quarter each. */
export function fingersAround({ report }: DrillScene, { at: index = 0 }: DrillCause): SmallNote[] {
  const { unrolled, fingers, settings } = report;
  if (index < 1) return [];
  return [index - 1, index].map((i): SmallNote => {
    const { note: own } = unrolled.notes[i]!;
    const fingering = fingers.get(own.id);
    // A hand that is kept from something is left to find its own way.
    return fingering?.reachable && settings.hand.bans.length === 0 && fingering.position === 1
      ? { pitch: own.pitch, eighths: 2, place: fingering.place, finger: fingering.finger! }
      : { pitch: own.pitch, eighths: 2 };
  });
}

const skippedString: DrillMaker = {
  kind: 'skipped-string',
  cause: (report, within) =>
    tightestOf(report, 'crossing', (index) => within(index) && (report.figures.arm.crossings[index]?.skips ?? 0) > 0)
      ?.cause ?? null,
  stages: (scene, cause) => {
    const [one, other] = cause.note ? stringsOf(scene, cause) : (['D', 'E'] as [Place, Place]);
    const [a, b] = [scene.open(one), scene.open(other)].map((note) => note && { ...note, eighths: 2 });
    const bpm = SLOW;
    return those([
      scene.stage('off-string', [a!, silence(2), b!, silence(2)], { way: 'silent', bpm }),
      scene.stage('roll-over', [a!, silence(1), b!, silence(1)], { bpm }),
      scene.stage('on-string', [a!, b!], { bpm }),
      scene.inTune(cause.note),
    ]);
  },
};

const earlyArm: DrillMaker = {
  kind: 'early-arm',
  cause: (report, within) =>
    tightestOf(report, 'crossing', (index) => within(index) && report.figures.arm.crossings[index]?.skips === 0)
      ?.cause ?? null,
  stages: (scene, cause) => {
    const [one, other] = stringsOf(scene, cause);
    const [a, b] = [scene.open(one), scene.open(other)];
    const run = [a, a, a, b].map((note) => note && { ...note });
    const bpm = Math.max(SLOW, 0.6 * scene.quarters);
    return those([
      ...(['near-edge', 'middle', 'far-edge'] as const).map((code) => scene.stage(code, run, { bpm })),
      scene.inTune(cause.note),
    ]);
  },
};

const elbow: DrillMaker = {
  kind: 'elbow',
  cause: ({ unrolled, fingers }, within) => {
    const own = unrolled.notes.filter(({ index }) => within(index));
    const places = new Map(own.map(({ note }) => [fingers.get(note.id)?.place, note.id]));
    const count = new Set([...places.keys()].filter((place) => place !== undefined)).size;
    return count >= 3 ? { by: 'bowing', figure: count, ...(places.has('G') ? { note: places.get('G')! } : {}) } : null;
  },
  stages: (scene, cause) => {
    const all = PLACES.map((place) => scene.open(place)).map((note) => note && { ...note, eighths: 2 });
    const there = [...all, ...all.slice(1, -1).reverse()];
    return those([
      scene.stage('swing', there, { way: 'silent', bpm: SLOW }),
      scene.stage('no-stop', there, { bpm: SLOW }),
      scene.inTune(cause.note),
    ]);
  },
};

const bowAmount: DrillMaker = {
  kind: 'bow-amount',
  cause: ({ figures, unrolled }, within) => {
    const { floor } = figures.check;
    const travels = figures.travel.map(({ bowStartCm, bowEndCm }, index) =>
      within(index) ? Math.abs(bowEndCm - bowStartCm) : 0,
    );
    const longest = travels.indexOf(Math.max(...travels));
    return floor && longest >= 0
      ? { by: 'bowing', note: unrolled.notes[longest]!.note.id, figure: Math.round(travels[longest]!) }
      : null;
  },
  stages: (scene, cause) => {
    const whole = scene.open('D');
    const stroke = (code: StageCode, eighths: number, bowLength: number) =>
      scene.stage(
        code,
        whole
          ? [
              { ...whole, eighths, bowLength },
              { ...whole, eighths, bowLength },
            ]
          : [null],
        { bpm: SLOW },
      );
    const schools = [stroke('whole-bow', 8, 1), stroke('half-bow', 4, 0.5), stroke('dance-bow', 2, 0.5)];
    return those([...schools, scene.inTune(cause.note)]);
  },
};

const startPlace: DrillMaker = {
  kind: 'start-place',
  cause: (report, within) => {
    const first = report.unrolled.notes.find(({ index }) => within(index));
    const shared = report.sharedStrokes()[0];
    return first && shared ? { by: 'bowing', note: first.note.id, figure: Math.round(shared.fromCm) } : null;
  },
  stages: (scene, cause) => {
    const open = scene.open('D');
    return those([
      scene.stage('from-its-place', open ? [{ ...open, eighths: 2 }, silence(6)] : [null], { bpm: SLOW }),
      scene.inTune(cause.note),
    ]);
  },
};

export const BOW_DRILLS: readonly DrillMaker[] = [
  pattern,
  jigAccent,
  turnInSilence,
  skippedString,
  earlyArm,
  elbow,
  bowAmount,
  startPlace,
];
