import { formatDistanceToNow } from 'date-fns';
import type { TuneRecord } from '#contract/tunes';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';

const KEYS: readonly [string, string][] = [
  ['← →', 'note before, note after'],
  ['Shift with ← →', 'select a range'],
  ['↑ ↓', 'bar before, bar after'],
  ['Home, End', 'first note, last note'],
  ['S', 'slur: share the stroke'],
  ['T', 'turn: a stroke the other way'],
  ['H', 'hook: same stroke after a stop'],
  ['R', 'retake: lift, same direction again'],
  ['D, U', 'lock to the down-bow, to the up-bow; again to unlock'],
  ['O', 'gestures only on the pass in view, or on all'],
  ['1 … 9', 'show that pass of the part'],
  ['B', 'begin the tune on the other bow'],
  ['P', 'bowing patterns'],
  ['Ctrl Z, Ctrl Y', 'undo, do again'],
  ['Esc', 'select nothing'],
  ['?', 'this list'],
];

export function KeysSheet({ onClose }: { readonly onClose: () => void }) {
  return (
    <Sheet open onOpenChange={onClose} title="Keys" description="They work while a note of the score is focused.">
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1">
        {KEYS.map(([keys, deed]) => (
          <div key={keys} className="contents">
            <dt className="font-bold whitespace-nowrap">{keys}</dt>
            <dd>{deed}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}

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
      description={`Another window kept a version ${when}, which yours does not build on. Nothing has been overwritten.`}
    >
      <div className="flex flex-col gap-3">
        <p>Whichever you take, the other stays one undo away.</p>
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={() => onSettle('newer')}>Take the other version</Button>
          <Button look="main" onClick={() => onSettle('mine')}>
            Keep mine on top
          </Button>
        </div>
      </div>
    </Sheet>
  );
}
