import { useMemo, useState } from 'react';
import { type TuneReport, reportTune } from '#core/report';
import type { NoteEvent, Tune } from '#core/tune';
import { type TwinFigure, bowAlike, playingShare, twinFigures } from '#core/twins';
import { writtenPitch } from '../score/noteWords';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { roundWords } from './Verdict';

interface TwinsSheetProps {
  readonly report: TuneReport;
  readonly onShow: (ids: readonly string[]) => void;
  readonly onApply: (tune: Tune, label: string) => void;
  readonly onClose: () => void;
}

/** Figures told before the rest is only counted, and notes of a figure that are named. */
const FIGURES_TOLD = 12;
const NOTES_NAMED = 8;

/** Figures that come again: where, how much of the tune they are, and whether they are bowed alike. */
export function TwinsSheet({ report, onShow, onApply, onClose }: TwinsSheetProps) {
  const figures = useMemo(() => twinFigures(report.tune), [report]);
  const split = figures.filter(({ isBowedAlike }) => !isBowedAlike).length;
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Figures that come again"
      description="Four notes or more, the same pitches in the same rhythm. At speed a figure bowed in two ways is two figures to learn."
      wide
    >
      {figures.length === 0 ? (
        <p className="text-muted">No figure of four notes or more comes again in this tune.</p>
      ) : (
        <>
          <p className="mb-3">
            <b>
              {figures.length} figure{figures.length === 1 ? '' : 's'}
            </b>
            , {split === 0 ? 'all bowed alike' : `${split} bowed in more than one way`}
          </p>
          <ol className="flex flex-col gap-2">
            {figures.slice(0, FIGURES_TOLD).map((figure, i) => (
              <FigureRow
                key={figure.places[0]![0]!.id + figure.length}
                figure={figure}
                isFirst={i === 0}
                report={report}
                onShow={onShow}
                onApply={onApply}
              />
            ))}
          </ol>
          {figures.length > FIGURES_TOLD && (
            <p className="mt-2 text-muted">and {figures.length - FIGURES_TOLD} that cover less</p>
          )}
        </>
      )}
    </Sheet>
  );
}

function FigureRow({
  figure,
  isFirst,
  report,
  onShow,
  onApply,
}: Pick<TwinsSheetProps, 'report' | 'onShow' | 'onApply'> & {
  readonly figure: TwinFigure;
  readonly isFirst: boolean;
}) {
  const { places, length, isBowedAlike } = figure;
  const [model, setModel] = useState(0);
  const [first] = places;
  const names = first!.slice(0, NOTES_NAMED).map(({ pitch }) => writtenPitch(pitch).replace(/-?\d$/, ''));
  const share = Math.round(100 * playingShare(figure, report.unrolled));
  return (
    <li className="rounded-md border border-line px-3 py-2" data-figure>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-serif text-[17px] font-bold">
          {names.join(' ')}
          {length > NOTES_NAMED && ' …'}
        </span>
        <span className="text-[14px] text-muted">
          {length} notes, {share} % of the playing time
        </span>
        {!isBowedAlike && <span className="text-[14px] font-bold text-weld-ink">bowed in more than one way</span>}
      </p>
      <p className="mt-1 flex flex-wrap items-center gap-1.5 text-[14px]">
        {places.map((place, i) => (
          <Button
            data-autofocus={(isFirst && i === 0) || undefined}
            key={place[0]!.id}
            look="small"
            onClick={() => onShow(place.map(({ id }) => id))}
          >
            {placeName(report, place)}
            <span className="sr-only">, show it</span>
          </Button>
        ))}
      </p>
      {!isBowedAlike && <Alike {...{ figure, report, model, onModel: setModel, onApply }} />}
    </li>
  );
}

/** Chooses the place to which the others are bowed alike, and says what comes of it before it is done. */
function Alike({
  figure,
  report,
  model,
  onModel,
  onApply,
}: {
  readonly figure: TwinFigure;
  readonly report: TuneReport;
  readonly model: number;
  readonly onModel: (place: number) => void;
  readonly onApply: TwinsSheetProps['onApply'];
}) {
  const result = useMemo(() => bowAlike(report.tune, figure, model), [report, figure, model]);
  const after = useMemo(() => reportTune(result, report.settings), [result, report]);
  const name = placeName(report, figure.places[model]!);
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 text-[14px]">
      <label className="flex items-center gap-1.5">
        bow all as in
        <select
          value={model}
          onChange={({ target }) => onModel(Number(target.value))}
          className="rounded-md border border-soft bg-surface px-1.5 py-1"
        >
          {figure.places.map((place, i) => (
            <option key={place[0]!.id} value={i}>
              {placeName(report, place)}
            </option>
          ))}
        </select>
      </label>
      <span className={after.figures.ledger.comesRound ? 'text-lichen-ink' : 'text-madder'}>{roundWords(after)}</span>
      <Button className="ml-auto" onClick={() => onApply(result, `figure bowed as in ${name}`)}>
        Bow alike
      </Button>
    </div>
  );
}

/** `A bar 3`; `bars 3–4` where it runs over the bar line. */
function placeName({ unrolled }: TuneReport, place: readonly NoteEvent[]): string {
  const find = (id: string) => unrolled.notes.find(({ ids }) => ids.includes(id));
  const first = find(place[0]!.id);
  const last = find(place[place.length - 1]!.id);
  if (!first || !last) return 'not played';
  const bar = (number: number) => (number === 0 ? 'pickup' : String(number));
  if (first.bar === last.bar) return first.bar === 0 ? `${first.part} pickup` : `${first.part} bar ${first.bar}`;
  return `${first.part} bars ${bar(first.bar)}–${bar(last.bar)}`;
}
