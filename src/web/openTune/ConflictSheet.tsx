import { formatDistanceToNow } from 'date-fns';
import type { TuneRecord } from '#contract/tunes';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';

/** Two versions of one tune: neither is thrown away. */
export function ConflictSheet({
  newer,
  onSettle,
}: {
  readonly newer: TuneRecord;
  readonly onSettle: (take: 'mine' | 'newer') => void;
}) {
  const when = formatDistanceToNow(new Date(newer.updatedAt), { addSuffix: true });
  return (
    <Sheet
      open
      onOpenChange={() => undefined}
      mustAnswer
      title="Two versions of this tune"
      description={`Another window saved a different version ${when}. Nothing has been overwritten.`}
    >
      <div className="flex flex-col gap-3">
        <p>Whichever you choose, undo brings the other back.</p>
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={() => onSettle('newer')}>Use the other version</Button>
          <Button look="main" onClick={() => onSettle('mine')}>
            Use mine
          </Button>
        </div>
      </div>
    </Sheet>
  );
}
