import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { changeTuning, type RankedTuning, tiedWith, TUNING_TERMS, type TuningTerm } from '#core/crossTuning';
import { transposeToKey } from '#core/editing';
import type { Key } from '#core/pitch';
import { reportTune, type TuneReport } from '#core/report';
import { tuningName } from '#core/tuning';
import { writtenKey, writtenPitch } from '#words/pitch';
import { counted, percentWords } from '#words/plural';
import { spotWords } from '#words/spot';
import { holdsWords } from '#words/tempo';
import type { SheetProps } from '../openTune/sheetProps';
import { usePreview } from '../openTune/usePreview';
import { problemWords } from '../threads/problemWords';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Why } from '../ui/Why';
import type { RankingRequest } from './tuningsProtocol';
import { useRanking } from './useRanking';

/** Keys that fiddlers play in, tried beside the tune's own. */
const DEFAULT_TONICS: readonly Pick<Key, 'letter' | 'alter'>[] = [
  { letter: 'D', alter: 0 },
  { letter: 'G', alter: 0 },
  { letter: 'A', alter: 0 },
  { letter: 'C', alter: 0 },
];

const HEADS: Readonly<Record<TuningTerm, string>> = {
  range: 'notes lost',
  drones: 'drones',
  ring: 'ring',
  shifts: 'shifts',
  crossings: 'crossings',
  hops: 'hops',
  retuning: 'pegs',
};

function figureWords(term: TuningTerm, value: number): string {
  if (term === 'range') return value === 0 ? 'none' : percentWords(value);
  if (term === 'drones') return percentWords(value);
  if (term === 'retuning') return value === 0 ? 'stay' : `${value} st`;
  if (term === 'ring') return value.toFixed(2);
  return value === 0 ? 'none' : `${value.toFixed(1)}/bar`;
}

/** Which tuning suits this tune: all of the library and the player's own, with what each is weighed by. */
export function TuningsSheet({
  report,
  tunings,
  onApply,
  onPreview,
  onHear,
  onClose,
}: Pick<SheetProps, 'report' | 'tunings' | 'onApply' | 'onPreview' | 'onHear' | 'onClose'>) {
  const { tune, settings } = report;
  const [otherKeys, setOtherKeys] = useState(false);
  const request = useMemo((): RankingRequest => {
    const own = { letter: tune.key.letter, alter: tune.key.alter };
    const others = DEFAULT_TONICS.filter(({ letter, alter }) => letter !== own.letter || alter !== own.alter);
    const { limits, instrument, schools, hand, bands, dottedRatios, lilts } = settings;
    return {
      tune,
      tunings,
      before: tune.tuning,
      settings: { limits, instrument, schools, hand, bands, dottedRatios, lilts },
      tonics: otherKeys ? [own, ...others] : [own],
    };
  }, [tune, tunings, settings, otherKeys]);
  const { kind, progress, answer, problem } = useRanking(request);
  const ranked = kind === 'done' ? answer : null;
  const ties = useMemo(() => tiedWith(ranked ?? []), [ranked]);
  const [chosen, setChosen] = useState<RankedTuning | null>(null);
  const total = request.tunings.length * request.tonics.length;
  return (
    <Sheet
      open
      onOpenChange={onClose}
      wide
      title="Tunings for this tune"
      description="The best first. Written pitch is sounding pitch."
    >
      <label className="mb-2 flex items-center gap-2">
        <input
          type="checkbox"
          data-autofocus
          className="accent-woad"
          checked={otherKeys}
          onChange={({ target }) => {
            setOtherKeys(target.checked);
            setChosen(null);
          }}
        />
        in other keys too
        <span className="ml-auto text-small text-muted" role="status">
          {ranked ? `${ranked.length} ranked` : problem ? '' : `ranking, ${progress} of ${total} …`}
        </span>
      </label>
      {problem !== null && <Alert className="mb-2">{problemWords(problem)}</Alert>}
      <ol aria-label="Ranked tunings" aria-busy={!ranked}>
        {(ranked ?? []).map((one, i) => {
          const isNow = tuningName(one.tuning) === tuningName(tune.tuning) && one.key.letter === tune.key.letter;
          const strings = one.tuning.map(writtenPitch).join(' ');
          return (
            <li
              key={`${one.name} ${writtenKey(one.key)} ${tuningName(one.tuning)}`}
              className="border-t border-line py-1.5"
            >
              <div className="flex items-start gap-2">
                <p className="min-w-0 flex-1 leading-snug">
                  <b className="whitespace-nowrap">{strings}</b>{' '}
                  <span className="text-small text-muted">
                    {one.name}, in {writtenKey(one.key)}
                    {ties[i] ? ', as good as the one before' : ''}
                  </span>
                  <span className="block text-small">
                    {one.figures.range === 0
                      ? 'every note within reach'
                      : `${percentWords(one.figures.range)} of the notes lost`}
                    ; drones fit {percentWords(one.figures.drones)}; {holdsWords(one.ceilingBpm)}
                  </span>
                </p>
                <Button look="small" disabled={isNow} onClick={() => setChosen(one)}>
                  {isNow ? 'as now' : 'look'}
                  <span className="sr-only"> at {strings}</span>
                </Button>
              </div>
              <Why>
                Cost {one.cost.toFixed(1).replace('-', '−')}, less is better; of it{' '}
                {TUNING_TERMS.map(
                  (term) => `${HEADS[term]} ${figureWords(term, one.figures[term])} (${one.terms[term].toFixed(2)})`,
                ).join(', ')}
                . The weights are guesses.
              </Why>
            </li>
          );
        })}
      </ol>
      {chosen && <Adopt {...{ report, chosen, onApply, onPreview, onHear }} />}
    </Sheet>
  );
}

interface AdoptProps extends Pick<SheetProps, 'onApply' | 'onPreview' | 'onHear'> {
  readonly report: TuneReport;
  readonly chosen: RankedTuning;
}

/** What taking a tuning up would do, before it is done. */
function Adopt({ report, chosen, onApply, onPreview, onHear }: AdoptProps) {
  const { tune, settings } = report;
  const strings = chosen.tuning.map(writtenPitch).join(' ');
  const change = useMemo(() => {
    const isOwnKey = chosen.key.letter === tune.key.letter && chosen.key.alter === tune.key.alter;
    const set = isOwnKey ? tune : transposeToKey(tune, chosen.key);
    return changeTuning(set, chosen.tuning, settings.hand, settings.instrument);
  }, [tune, chosen, settings]);
  usePreview(onPreview, change.tune, change.tune !== tune);
  const lost = useMemo(() => lostWords(reportTune(change.tune, settings)), [change, settings]);
  return (
    <section
      className="sticky -bottom-4 mt-3 rounded-md border border-line bg-band px-4 py-3"
      aria-live="polite"
      aria-label={`What taking ${strings} would do`}
      data-adopt
    >
      <p>
        <b>{strings}</b>: {counted(change.refingered.length, 'note')} refingered
        {change.lost.length === 0 ? ', none lost' : ''}; every note sounds as written
        {change.lost.length > 0 && (
          <span className="text-madder">
            , except {change.lost.length} out of reach: {lost}
          </span>
        )}
        .
        {change.droneChanges.length > 0 &&
          ` ${counted(change.droneChanges.length, 'drone')} will sound another open string.`}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button onClick={() => onHear(change.tune)}>Hear it</Button>
        <Button look="main" onClick={() => onApply(change.tune, `tuned ${strings}, in ${writtenKey(change.tune.key)}`)}>
          Take it
        </Button>
        <Link className="text-woad underline" to={`/pegs?to=${encodeURIComponent(tuningName(chosen.tuning))}`}>
          How to get the strings there
        </Link>
      </div>
    </section>
  );
}

const LOST_NAMED = 5;

function lostWords({ unrolled, fingers }: TuneReport): string {
  const seen = new Set<string>();
  const places: string[] = [];
  for (const { note, ...at } of unrolled.notes) {
    if (seen.has(note.id) || fingers.get(note.id)!.reachable) continue;
    seen.add(note.id);
    places.push(`${writtenPitch(note.pitch)} in ${spotWords(at)}`);
  }
  return places.slice(0, LOST_NAMED).join(', ') + (places.length > LOST_NAMED ? ' …' : '');
}
