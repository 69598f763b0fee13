import type { AttemptKind } from '#contract/log';
import type { PracticeSpan } from '#contract/practice';
import { type Ability, cleanTempo, marginsOf } from '#core/ability';
import { DRILL_KINDS, type DrillKind, excerpt, type TuneDrill } from '#core/drills';
import { chosenDrill } from '#core/drills';
import {
  AIR_START,
  type Bite,
  cellAround,
  cellNow,
  cellTune,
  type LadderWish,
  type Landmark,
  landmarkStretch,
  layerOf,
  type PracticeLayer,
  type PracticePlan,
  type Run,
  type Stretch,
  stretchStart,
} from '#core/practice';
import { reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { biteWords } from '#words/practice';
import { barWords, countWords } from '#words/spot';
import { eventName } from '#words/standing';
import { DRILL_NAMES, STAGE_WORDS } from '#words/tuneDrill';

/** What is run: a stretch of a tune, a join of two, the whole, or a drill stage by stage. */
export interface RunItem {
  readonly what: AttemptKind;
  readonly name: string;
  /** What is to be watched. */
  readonly watch: string;
  readonly stretch: Stretch;
  readonly span: PracticeSpan;
  /** The note to which the tightest step leads; null: none is tight. */
  readonly at: number | null;
  readonly wishBpm: number;
  readonly startBpm: number;
  /** The room at the tempo wanted, and what the player can do; null: not known yet. */
  readonly known: LadderWish['known'];
  readonly drill: { readonly kind: DrillKind; readonly stages: TuneDrill['stages'] } | null;
  /** What is played, of a report of the tune in some layer: at a tempo, and for a drill at its stage's own. */
  readonly tuneAt: (report: TuneReport, run: Run, stage: number) => Tune;
}

/** What is known of the player and the tune beside its plan. */
export interface KnownOfPlayer {
  /** What the log says of the player; null: nothing yet. */
  readonly ability: Ability | null;
  /** The quickest that a stretch was clean at; null: it never was. */
  readonly cleanBpmOf: (span: PracticeSpan) => number | null;
  readonly landmarks: readonly Landmark[];
}

/** What an address names: `bite-b3`, `join-b2-b3`, `landmark-` and its id, `through`, `drill-pulse`; null: nothing of this tune. */
export function runItem(address: string, report: TuneReport, plan: PracticePlan, known: KnownOfPlayer): RunItem | null {
  const [kind, ...rest] = address.split('-');
  const { ability, cleanBpmOf, landmarks } = known;
  const bite = (id: string | undefined) => plan.bites.find((own) => own.id === id) ?? null;
  switch (kind) {
    case 'bite': {
      const own = bite(rest[0]);
      return (
        own &&
        stretchItem('bite', own, report, {
          name: biteWords(report, own),
          span: spanOf(own),
          ceiling: own.ceilingBpm,
          at: own.tightest?.index ?? null,
          ability,
          cleanBpmOf,
          watch: watchWords(report, own.tightest),
        })
      );
    }
    case 'join': {
      const join = plan.joins.find(({ from, to }) => from === rest[0] && to === rest[1]);
      const [from, to] = [bite(rest[0]), bite(rest[1])];
      if (!join || !from || !to) return null;
      const last = report.unrolled.notes.length - 1;
      const stretch = cellAround(report, join.at, {
        first: Math.max(0, join.at - MOST_NOTES),
        last: Math.min(last, join.at + MOST_NOTES),
      });
      return stretchItem('join', stretch, report, {
        name: `from ${biteWords(report, from)} into ${biteWords(report, to)}`,
        span: { part: to.part, from: from.to, to: to.from },
        ceiling: join.ceilingBpm,
        at: join.at,
        ability,
        cleanBpmOf,
        watch: 'The step from one to the other: no gap, no hurry.',
      });
    }
    case 'landmark': {
      const landmark = landmarks.find(({ id }) => id === rest.join('-'));
      const stretch = landmark ? landmarkStretch(report, landmark) : null;
      if (!landmark || !stretch) return null;
      const { name, part, from, to } = landmark;
      return stretchItem('bite', stretch, report, {
        name,
        span: { part, from, to },
        ceiling: stretch.ceilingBpm,
        at: stretch.tightest?.index ?? null,
        ability,
        cleanBpmOf,
        watch: watchWords(report, stretch.tightest),
      });
    }
    case 'through': {
      const { notes } = report.unrolled;
      if (notes.length === 0) return null;
      const honest = honestBpm(report, ability);
      return {
        ...stretchItem('run-through', { first: 0, last: notes.length - 1 }, report, {
          name: 'the whole tune',
          span: { part: notes[0]!.part, from: notes[0]!.note.id, to: notes[notes.length - 1]!.note.id },
          ceiling: null,
          at: null,
          ability: null,
          cleanBpmOf,
          watch: '',
        }),
        watch: 'Do not stop, whatever happens.',
        startBpm: honest,
        wishBpm: honest,
        tuneAt: (own) => own.tune,
      };
    }
    case 'drill':
      return drillItem(rest.join('-'), report);
    default:
      return null;
  }
}

/** Notes on each side among which the strokes of a join are looked for. */
const MOST_NOTES = 12;

const spanOf = ({ part, from, to }: Bite): PracticeSpan => ({ part, from, to });

interface StretchFacts extends Pick<KnownOfPlayer, 'ability' | 'cleanBpmOf'> {
  readonly name: string;
  readonly span: PracticeSpan;
  readonly ceiling: number | null;
  readonly at: number | null;
  readonly watch: string;
}

/** The tempo at which a tune goes through, where nothing is known, against the one wanted; and the chance that is meant by it. Guesses. */
const HONEST_SHARE = 0.8;
const HONEST_CHANCE = 0.8;

/** The tempo at which the whole tune comes out clean four times in five. */
function honestBpm(report: TuneReport, ability: Ability | null): number {
  const { bpm } = report.settings;
  const margins = ability && marginsOf(report, 0, report.unrolled.notes.length - 1);
  const likely = margins && cleanTempo(margins, bpm, ability, HONEST_CHANCE);
  return Math.min(bpm, likely ?? HONEST_SHARE * bpm);
}

function stretchItem(
  what: AttemptKind,
  stretch: Stretch,
  report: TuneReport,
  { name, span, ceiling, at, ability, cleanBpmOf, watch }: StretchFacts,
): RunItem {
  const wishBpm = report.settings.bpm;
  const isAir = report.tune.danceType === 'air';
  const known = ability && !isAir ? { margins: marginsOf(report, stretch.first, stretch.last), ability } : null;
  const startBpm = isAir ? AIR_START * wishBpm : stretchStart(wishBpm, ceiling, known, cleanBpmOf(span));
  return {
    what,
    name,
    watch,
    stretch,
    span,
    at,
    wishBpm,
    startBpm,
    known,
    drill: null,
    tuneAt: (own, { cell, ladder }) => {
      const now = cell ? cellNow(cell) : { stretch, restBeats: 0 };
      if (cell || what === 'join')
        return cellTune(own, now.stretch, { at: cell?.at ?? at ?? 0, restBeats: now.restBeats, bpm: ladder.bpm });
      return once({ ...excerpt(own, stretch.first, stretch.last, report.tune.title), tempoBpm: ladder.bpm });
    },
  };
}

/** What is tightest, and where. */
function watchWords({ unrolled, figures }: TuneReport, tightest: Bite['tightest']): string {
  if (!tightest) return 'Even, and with a good tone.';
  const { index, kind } = tightest;
  const note = unrolled.notes[index]!;
  const name = eventName(kind, figures.arm.crossings[index] ?? null).replace(/^an? /, '');
  return `Watch the ${name} at ${barWords(note)}, ${countWords(note)}.`;
}

/** A tune of one part, played once: its player loops it. */
const once = (tune: Tune): Tune => ({ ...tune, form: tune.form.slice(0, 1) });

function drillItem(kind: string, report: TuneReport): RunItem | null {
  const known = DRILL_KINDS.find((one) => one === kind);
  const drill = known ? chosenDrill(report, known) : null;
  if (!drill) return null;
  const { stages } = drill;
  const [first] = stages;
  const { notes } = report.unrolled;
  return {
    what: 'drill',
    name: DRILL_NAMES[drill.kind].name,
    watch: DRILL_NAMES[drill.kind].about,
    stretch: { first: 0, last: 0 },
    span: { part: notes[0]?.part ?? 'A', from: drill.because.note ?? '', to: drill.because.note ?? '' },
    at: null,
    wishBpm: first!.bpm,
    startBpm: first!.bpm,
    known: null,
    drill: { kind: drill.kind, stages },
    tuneAt: (_report, _run, stage) => once(stages[Math.min(stage, stages.length - 1)]!.tune),
  };
}

/** What is done in a stage of a drill. */
export function stageWords({ drill }: RunItem, stage: number): string | null {
  return drill ? STAGE_WORDS[drill.stages[Math.min(stage, drill.stages.length - 1)]!.code] : null;
}

/** The tune in a layer, checked with the same settings. */
export function layeredReport(report: TuneReport, layer: PracticeLayer): TuneReport {
  const tune = layerOf(report.tune, layer);
  return tune === report.tune ? report : reportTune(tune, report.settings);
}

/** The plan that is played and drawn, with the player's own settings. */
export function playedReport(tune: Tune, { settings }: TuneReport): TuneReport {
  const { bpm: _bpm, start: _start, lilt: _lilt, ...player } = settings;
  return reportTune(tune, player);
}
