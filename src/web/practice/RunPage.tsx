import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { SpanDay } from '#contract/log';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { PageProblem } from '../ui/PageState';
import { readRunChoices, writeRunChoices } from './runChoices';
import { runItem } from './runItem';
import { RunScreen } from './RunScreen';
import { bestBpm, useTuneInBites } from './useTuneInBites';

/** A bite, a join, a drill or the whole tune, played over and over: readable from two metres. */
export default function RunPage() {
  return <OpenTunePage page={RunRoom} />;
}

function RunRoom({ open, report }: OpenTuneProps) {
  const { item: address = '' } = useParams();
  const own = useTuneInBites(open.id, report);
  const { plan, daysOf, isReady } = own;
  const [choices, setChoices] = useState(readRunChoices);
  // Where it begins is settled once: what is logged meanwhile moves the ladder, and not its foot.
  const item = useMemo(() => {
    if (!isReady) return null;
    const bite = plan.bites.find(({ id }) => address === `bite-${id}`);
    const days: readonly SpanDay[] = bite ? daysOf(bite) : [];
    return runItem(address, report, plan, bestBpm(days));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above
  }, [address, isReady, plan]);
  if (!isReady) return <p className="p-8 text-muted">Opening …</p>;
  if (!item)
    return (
      <PageProblem title="There is no such bite any more">
        <p>
          The tune was cut otherwise since.{' '}
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
      choices={choices}
      onChoose={(next) => {
        writeRunChoices(next);
        setChoices(next);
      }}
    />
  );
}
