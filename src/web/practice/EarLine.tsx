import { Ear, Square } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { LevelLine } from '../takes/LevelLine';
import type { LoopSource } from '../takes/listenLoop';
import type { ListeningLadder } from '../takes/useListeningLadder';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';

/** What the listener does, and the one thing it has to say of the last loop, large. */
export function EarLine({
  ear: { isOn, isShown, phase, level, said, isClean, rows, problem },
}: {
  readonly ear: ListeningLadder;
}) {
  if (problem) return <Alert>{problem}</Alert>;
  if (!isOn) return null;
  return (
    <div data-ear={phase} className="flex flex-col gap-1">
      <p
        role="status"
        data-ear-said
        className={`font-serif text-[clamp(1.6rem,4vw,2.8rem)] leading-tight font-bold ${said === null ? 'text-muted' : isClean ? 'text-lichen-ink' : 'text-madder'}`}
      >
        {phase === 'counting' ? 'Count-in …' : phase === 'playing' ? 'Play.' : said}
      </p>
      {phase === 'told' && rows.length > 0 && <p className="text-muted">{rows.join(' · ')}</p>}
      {isShown && <p className="text-muted">The simulated player plays: none of it goes into your log.</p>}
      {phase !== 'told' && said !== null && <p className="text-muted">last time: {said}</p>}
      {phase === 'playing' && <LevelLine level={level} />}
    </div>
  );
}

interface EarButtonProps {
  readonly ear: ListeningLadder;
  readonly speaks: boolean;
  readonly onSpeaks: (speaks: boolean) => void;
  readonly onListen: (source: LoopSource) => void;
}

const ITEM = 'cursor-pointer rounded px-3 py-2 outline-none data-highlighted:bg-band';

/** Begins to listen, to whom; or ends it. */
export function EarButton({ ear, speaks, onSpeaks, onListen }: EarButtonProps) {
  if (ear.isOn)
    return (
      <Button className="flex items-center gap-2 px-5 text-lead" onClick={ear.stop}>
        <Square size={18} fill="currentColor" aria-hidden /> Stop listening
      </Button>
    );
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button className="flex items-center gap-2 px-5 text-lead">
          <Ear size={20} aria-hidden /> Listen to me
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          side="top"
          align="start"
          sideOffset={6}
          className="z-50 rounded-md border border-line bg-surface p-1 shadow-md"
        >
          <DropdownMenu.Item className={ITEM} onSelect={() => onListen('microphone')}>
            Through the microphone
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onListen('simulated')}>
            Show me: the simulated player
          </DropdownMenu.Item>
          <DropdownMenu.CheckboxItem
            className={ITEM}
            checked={speaks}
            onCheckedChange={onSpeaks}
            onSelect={(event) => event.preventDefault()}
          >
            {speaks ? '✓ ' : ''}Say it aloud
          </DropdownMenu.CheckboxItem>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
