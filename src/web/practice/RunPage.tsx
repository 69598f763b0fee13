import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Attempt } from '#contract/log';
import { today } from '#words/days';
import { useAttemptsQuery } from '../api/logApi';
import { useAbility } from '../api/useAbility';
import { isSameSpan } from '../log/spans';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { PageProblem } from '../ui/PageState';
import { cleanBpmOf } from './cleanBefore';
import { likelyAbility } from './likelyAbility';
import { readRunChoices, writeRunChoices } from './runChoices';
import { runItem } from './runItem';
import { RunScreen } from './RunScreen';
import { useTuneInBites } from './useTuneInBites';

const NONE: readonly Attempt[] = [];

/** A bite, a join, a drill or the whole tune, played over and over: readable from two metres. */
export default function RunPage() {
  return <OpenTunePage page={RunRoom} />;
}

function RunRoom({ open, report }: OpenTuneProps) {
  const { item: address = '' } = useParams();
  const own = useTuneInBites(open.id, report);
  const { plan, isReady, practice, change } = own;
  const { data: attempts, isError } = useAttemptsQuery(open.id);
  const known = useAbility();
  const isKnown = isReady && known.isReady && (attempts !== undefined || isError);
  const [choices, setChoices] = useState(readRunChoices);
  // Where it begins is settled once: what is logged meanwhile moves the ladder, and not its foot.
  const item = useMemo(() => {
    if (!isKnown) return null;
    const played = attempts ?? [];
    return runItem(address, report, plan, {
      ability: likelyAbility(known.ability),
      cleanBpmOf: (span) => cleanBpmOf(played, span),
      landmarks: practice.landmarks,
    });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above
  }, [address, isKnown, plan]);
  if (!isKnown) return <p className="p-8 text-muted">Opening …</p>;
  if (!item)
    return (
      <PageProblem title="There is no such bite any more">
        <p>
          The tune has been cut differently since.{' '}
          <Link to={`/tunes/${open.id}/practice`} className="text-woad underline">
            Back to its bites
          </Link>
        </p>
      </PageProblem>
    );
  return (
    <RunScreen
      key={address}
      open={open}
      report={report}
      item={item}
      attempts={attempts ?? NONE}
      isResting={practice.resting.some((one) => isSameSpan(one, item.span))}
      onRest={(rests) => {
        // A drill, a join or a run-through ends; what rests is a stretch that is learnt.
        if (item.what !== 'bite') return;
        const others = practice.resting.filter((one) => !isSameSpan(one, item.span));
        const resting = rests ? [...others, { ...item.span, since: today() }] : others;
        change({ ...practice, resting }, rests ? `let ${item.name} rest` : `take up ${item.name} again`);
      }}
      choices={choices}
      onChoose={(next) => {
        writeRunChoices(next);
        setChoices(next);
      }}
    />
  );
}
