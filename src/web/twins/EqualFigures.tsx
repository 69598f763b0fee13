import { useMemo, useState } from 'react';
import { reportTune, type TuneReport } from '#core/report';
import {
  bowAlike,
  type CountCue,
  countCues,
  flippingSpots,
  playingShare,
  type TwinFigure,
  twinFigures,
} from '#core/twins';
import { counted } from '#words/plural';
import { reportVerdict } from '#words/verdict';
import { Adopt } from '../openTune/Adopt';
import type { SheetProps } from '../openTune/sheetProps';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { BowSign } from '../ui/signs';
import { noteNames, placeName } from './placeNames';

/** Figures told before the rest is only counted, and notes of a figure that are named. */
const FIGURES_TOLD = 12;
const NOTES_NAMED = 8;

type FiguresProps = Pick<SheetProps, 'report' | 'onShow' | 'onEdit' | 'onPreview' | 'onHear'>;

/** Equal figures: where, how much of the tune they are, by what they are told apart, and whether they are bowed alike. */
export function EqualFigures(props: FiguresProps) {
  const { report } = props;
  const figures = useMemo(() => twinFigures(report.tune), [report]);
  const split = figures.filter(({ isBowedAlike }) => !isBowedAlike).length;
  if (figures.length === 0)
    return <p className="text-muted">No figure of four notes or more is repeated in this tune.</p>;
  return (
    <>
      <p className="mb-3">
        <b>{counted(figures.length, 'figure')}</b>,{' '}
        {split === 0 ? 'all bowed alike' : `${split} bowed more than one way`}
        <span className="block text-small text-muted">
          Four notes or more, the same pitches in the same rhythm. At speed a figure bowed in two ways is two figures to
          learn.
        </span>
      </p>
      <ol className="flex flex-col gap-2">
        {figures.slice(0, FIGURES_TOLD).map((figure) => (
          <FigureRow key={figure.spots[0]![0]!.id + figure.length} figure={figure} {...props} />
        ))}
      </ol>
      {figures.length > FIGURES_TOLD && (
        <p className="mt-2 text-muted">and {figures.length - FIGURES_TOLD} that cover less</p>
      )}
    </>
  );
}

function FigureRow({ figure, ...props }: FiguresProps & { readonly figure: TwinFigure }) {
  const { report, onShow, onEdit, onPreview, onHear } = props;
  const { spots, length, isBowedAlike } = figure;
  const [model, setModel] = useState(0);
  const share = Math.round(100 * playingShare(figure, report.unrolled));
  const cues = useMemo(
    () => countCues(figure, report.unrolled, report.figures.bowed, report.fingers),
    [figure, report],
  );
  return (
    <li className="rounded-md border border-line px-3 py-2" data-figure>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-serif text-lead font-bold">{noteNames(spots[0]!, NOTES_NAMED)}</span>
        <span className="text-small text-muted">
          {length} notes, {share} % of the playing time
        </span>
        {!isBowedAlike && <span className="text-small font-bold text-weld-ink">bowed more than one way</span>}
      </p>
      <ul className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-small">
        {spots.map((place, i) => (
          <li key={place[0]!.id} className="flex items-center gap-1.5">
            <Button look="small" onClick={() => onShow(place.map(({ id }) => id))}>
              {placeName(report, place)}
              <span className="sr-only">, show it</span>
            </Button>
            {cues[i] && <Cue cue={cues[i]} />}
          </li>
        ))}
      </ul>
      {!isBowedAlike && <Alike {...{ figure, report, model, onModel: setModel, onEdit, onPreview, onHear }} />}
    </li>
  );
}

const CUE_WORDS: Record<NonNullable<CountCue['second']>['kind'], (value: string) => string> = {
  mark: (value) => `with ${value}`,
  'note-before': (value) => `after ${value}`,
  'length-before': (value) => `after a note of ${value}`,
  beat: (value) => `on beat ${value}`,
  part: (value) => `in ${value}`,
};

/** How a player knows which of the places this is: direction, and a second cue where that is not enough. */
function Cue({ cue: { bow, string, second, isAlone } }: { readonly cue: CountCue }) {
  return (
    <span className={isAlone ? 'text-muted' : 'text-weld-ink'}>
      <BowSign direction={bow} />
      <span className="sr-only">{bow}-bow</span>
      {string && ` ${string} string`}
      {second && `, ${CUE_WORDS[second.kind](second.value.replace('#', '♯'))}`}
      {!isAlone && ', nothing sets it apart: give it an accent'}
    </span>
  );
}

/** Chooses the place to which the others are bowed alike, and says what comes of it before it is done. */
function Alike({
  figure,
  report,
  model,
  onModel,
  onEdit,
  onPreview,
  onHear,
}: Pick<SheetProps, 'onEdit' | 'onPreview' | 'onHear'> & {
  readonly figure: TwinFigure;
  readonly report: TuneReport;
  readonly model: number;
  readonly onModel: (place: number) => void;
}) {
  const result = useMemo(() => bowAlike(report.tune, figure, model), [report, figure, model]);
  const after = useMemo(() => reportTune(result, report.settings), [result, report]);
  const name = placeName(report, figure.spots[model]!);
  const flipping = flippingSpots(figure, model);
  const verdict = reportVerdict(after);
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 text-small">
      <label className="flex items-center gap-1.5">
        bow them all as in
        <Select
          className="rounded-md border border-soft bg-surface px-1.5 py-1"
          value={model}
          options={figure.spots.map((spot, i) => ({ value: i, name: placeName(report, spot) }))}
          onChange={onModel}
        />
      </label>
      <span className={verdict.kind === 'good' ? 'text-lichen-ink' : 'text-madder'}>{verdict.words}</span>
      {!after.figures.ledger.comesRound && flipping.length > 0 && (
        <span className="text-muted">
          {flipping.map((i) => placeName(report, figure.spots[i]!)).join(', ')} would turn an odd number of times more
          or less, so what follows goes the other way.
        </span>
      )}
      <Adopt
        {...{ onApply: onEdit, onPreview, onHear }}
        next={result}
        label={`figure bowed as in ${name}`}
        name={`bowed as in ${name}`}
      >
        bow them alike
      </Adopt>
    </div>
  );
}
