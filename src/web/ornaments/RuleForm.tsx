import { useMemo, useState } from 'react';
import {
  type Ornament,
  ornament as decorate,
  ORNAMENTS,
  ornamentSpots,
  RULE_SPOTS,
  type RuleSpot,
} from '#core/ornaments';
import { ornamentSceneOf, reportTune } from '#core/report';
import { ornamentName, RULE_SPOT_WORDS } from '#words/ornament';
import { counted } from '#words/plural';
import { holdsWords } from '#words/tempo';
import type { SheetProps } from '../openTune/sheetProps';
import { usePreview } from '../openTune/usePreview';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';

const DENSITIES = [1, 2, 3, 4, 6, 8] as const;

/** "Flick each dotted quarter on the beat, two in a phrase at the most." */
export function RuleForm({
  report,
  settings: { words },
  onApply,
  onPreview,
  onHear,
}: Pick<SheetProps, 'report' | 'settings' | 'onApply' | 'onPreview' | 'onHear'>) {
  const { tune } = report;
  const [ornament, setOrnament] = useState<Ornament>('flick');
  const [spot, setSpot] = useState<RuleSpot>('dotted-quarters');
  const [most, setMost] = useState<number>(2);
  const ids = useMemo(
    () => ornamentSpots(ornamentSceneOf(report), { ornament, spot, mostInPhrase: most }),
    [report, ornament, spot, most],
  );
  const next = useMemo(() => decorate(ornamentSceneOf(report), ids, ornament), [report, ids, ornament]);
  const after = useMemo(() => (next === tune ? report : reportTune(next, report.settings)), [next, tune, report]);
  usePreview(onPreview, next, next !== tune);
  const ceiling = after.figures.check.ceiling?.ceilingBpm ?? null;
  const name = ornamentName(ornament, words);
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onApply(next, `${name} on ${RULE_SPOT_WORDS[spot]}`);
      }}
    >
      <p className="flex flex-wrap items-center gap-2">
        <label>
          <span className="sr-only">Ornament</span>
          <Select
            value={ornament}
            options={ORNAMENTS.map((kind) => ({ value: kind, name: ornamentName(kind, words) }))}
            onChange={setOrnament}
          />
        </label>
        on
        <label>
          <span className="sr-only">Place</span>
          <Select
            value={spot}
            options={RULE_SPOTS.map((kind) => ({ value: kind, name: RULE_SPOT_WORDS[kind] }))}
            onChange={setSpot}
          />
        </label>
        ,
        <label>
          at most{' '}
          <Select
            value={most}
            options={DENSITIES.map((count) => ({ value: count as number, name: String(count) }))}
            onChange={setMost}
          />{' '}
          in four bars
        </label>
      </p>
      <p aria-live="polite" data-rule>
        <b>{ids.length === 0 ? 'No note' : `${counted(ids.length, 'note')}`}</b> where it fits on every pass.{' '}
        <span className="text-muted">
          {next === tune ? (ids.length === 0 ? '' : 'They already have it.') : `Then the tune ${holdsWords(ceiling)}.`}
        </span>
      </p>
      <div className="flex gap-2">
        <Button disabled={next === tune} onClick={() => onHear(next)}>
          Hear it
        </Button>
        <Button look="main" type="submit" disabled={next === tune}>
          Take them
        </Button>
      </div>
    </form>
  );
}
