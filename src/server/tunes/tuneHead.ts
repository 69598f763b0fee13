import { formatFraction } from '#core/base';
import { firstNotes, melodyLines, melodyPrint, wholeLine } from '#core/likeness';
import { keyName } from '#core/pitch';
import { danceBeat, type PlayerSettings, wishedTempo } from '#core/report';
import { type DanceType, meterName, playsOf, type Tune } from '#core/tune';
import { tuningName } from '#core/tuning';

/** What the book knows of a tune without checking its plan; names are those of the columns. */
export interface TuneHead {
  readonly title: string;
  readonly dance_type: DanceType | null;
  readonly meter: string;
  readonly key_name: string;
  readonly tuning: string;
  readonly form: string;
  readonly bars: number;
  readonly wish_bpm: number;
  readonly beat: string;
  readonly schema_version: number;
  readonly other_titles: readonly string[];
  readonly composer: string;
  readonly said: string;
  readonly first_steps: string;
  readonly first_bar_steps: string;
  /** By part; the whole melody's under the empty name. */
  readonly prints: readonly { readonly part: string; readonly print: readonly number[] }[];
}

/** The name under which the whole melody's print is kept; no part is called so. */
export const WHOLE_TUNE = '';

const ALSO_CALLED = 'Also called: ';
/** Letters of notes and source that are searched. */
const MAX_SAID = 20_000;
/** Other titles that a tune is found by, and letters of each: an index of words holds a million bytes. */
const MAX_TITLES = 50;
const MAX_TITLE_LETTERS = 300;

/** Everything that follows from the document alone; a hundred times quicker than its report. */
export function tuneHead(tune: Tune, settings: Pick<PlayerSettings, 'bands'>): TuneHead {
  return { ...headColumns(tune, settings), prints: printsOf(tune) };
}

/** What the book lists and finds a tune by: the head without the prints of its melodies, which are most of the work. */
export function headColumns(tune: Tune, { bands }: Pick<PlayerSettings, 'bands'>): Omit<TuneHead, 'prints'> {
  const notes = tune.notes ?? [];
  const { fromStart, fromBar } = firstNotes(tune);
  return {
    title: tune.title,
    dance_type: tune.danceType,
    meter: meterName(tune.meter),
    key_name: keyName(tune.key),
    tuning: tuningName(tune.tuning),
    form: formWords(tune.form),
    bars: playsOf(tune).reduce((sum, { played, hasPickup }) => sum + played.length - (hasPickup ? 1 : 0), 0),
    wish_bpm: wishedTempo(tune, bands),
    beat: formatFraction(danceBeat(tune)),
    schema_version: tune.schemaVersion,
    other_titles: notes
      .filter((note) => note.startsWith(ALSO_CALLED))
      .slice(0, MAX_TITLES)
      .map((note) => note.slice(ALSO_CALLED.length).slice(0, MAX_TITLE_LETTERS)),
    composer: tune.composer ?? '',
    said: [...notes.filter((note) => !note.startsWith(ALSO_CALLED)), tune.source ?? ''].join('\n').slice(0, MAX_SAID),
    first_steps: fromStart,
    first_bar_steps: fromBar,
  };
}

function formWords(form: readonly string[]): string {
  return form.every((name) => name.length === 1) ? form.join('') : form.join(' ');
}

function printsOf(tune: Tune): TuneHead['prints'] {
  const lines = melodyLines(tune);
  return [{ part: WHOLE_TUNE, pitches: wholeLine(lines) }, ...lines].flatMap(({ part, pitches }) => {
    const print = melodyPrint(pitches);
    return print.length > 0 ? [{ part, print }] : [];
  });
}

/** Columns that are filled from a head as JSON, with their types. */
const HEAD_COLUMNS: Readonly<Record<Exclude<keyof TuneHead, 'prints'>, string>> = {
  title: 'text',
  dance_type: 'text',
  meter: 'text',
  key_name: 'text',
  tuning: 'text',
  form: 'text',
  bars: 'integer',
  wish_bpm: 'double precision',
  beat: 'text',
  schema_version: 'integer',
  other_titles: 'text[]',
  composer: 'text',
  said: 'text',
  first_steps: 'text',
  first_bar_steps: 'text',
};

/** `title, dance_type, …` */
export const HEAD_NAMES = Object.keys(HEAD_COLUMNS).join(', ');

/** `title text, dance_type text, …`: how `jsonb_to_record` reads a head. */
export const HEAD_RECORD = Object.entries(HEAD_COLUMNS)
  .map(([name, type]) => `${name} ${type}`)
  .join(', ');
