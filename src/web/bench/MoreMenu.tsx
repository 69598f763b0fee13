import { ChevronRight, Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import type { ExportFormat } from '#contract/exports';
import type { SheetName } from './sheets';

interface MoreMenuProps {
  readonly tuneId: string;
  readonly hasSource: boolean;
  readonly onTune: () => void;
  readonly onForm: () => void;
  readonly onBow: () => void;
  readonly onBowings: () => void;
  readonly onTwins: () => void;
  readonly onHand: (sheet: SheetName) => void;
  readonly onVersions: () => void;
  readonly onFile: (format: ExportFormat) => void;
  readonly onKeys: () => void;
}

const FILES = [
  { format: 'abc', words: 'ABC' },
  { format: 'musicxml', words: 'MusicXML' },
  { format: 'midi', words: 'MIDI' },
  { format: 'json', words: 'Morrin plan' },
] as const;

const ITEM = 'block cursor-pointer rounded px-2 py-1 text-ink no-underline outline-none data-highlighted:bg-band';

/** What is done to the tune as a whole. */
export function MoreMenu({
  tuneId,
  hasSource,
  onTune,
  onForm,
  onBow,
  onBowings,
  onTwins,
  onHand,
  onVersions,
  onFile,
  onKeys,
}: MoreMenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label="The tune as a whole"
        title="The tune as a whole"
        className="grid size-9 place-items-center rounded-md text-muted hover:bg-band hover:text-ink"
      >
        <Ellipsis size={18} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          sideOffset={6}
          align="end"
          className="z-40 rounded-lg border border-line bg-surface p-1.5 shadow-lg"
        >
          <DropdownMenu.Item className={ITEM} onSelect={onTune}>
            Title, meter, key, tuning …
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={onForm}>
            Form …
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={onBowings}>
            Other bowings … (W)
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={onBow}>
            Bow amount and tone … (M)
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={onTwins}>
            Figures that come again … (F)
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onHand('fingering')}>
            Fingering hand … (G)
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onHand('drones')}>
            Drones and double stops … (C)
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onHand('ornaments')}>
            Ornaments … (A)
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onHand('tunings')}>
            Tunings for this tune … (I)
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={onVersions}>
            Named versions …
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} asChild>
            <Link to={`/tunes/${tuneId}/dance`}>Dance check</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} asChild>
            <Link to={`/tunes/${tuneId}/handout`}>Hand-out on paper</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} asChild>
            <Link to={`/tunes/${tuneId}/settings`}>Settings beat by beat</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Sub>
            <DropdownMenu.SubTrigger className={`${ITEM} flex items-center justify-between`}>
              Keep as a file <ChevronRight size={15} aria-hidden />
            </DropdownMenu.SubTrigger>
            <DropdownMenu.Portal>
              <DropdownMenu.SubContent className="z-40 rounded-lg border border-line bg-surface p-1.5 shadow-lg">
                {FILES.map(({ format, words }) => (
                  <DropdownMenu.Item key={format} className={ITEM} onSelect={() => onFile(format)}>
                    {words}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.SubContent>
            </DropdownMenu.Portal>
          </DropdownMenu.Sub>
          {hasSource && (
            <DropdownMenu.Item className={ITEM} asChild>
              <a href={`/api/tunes/${tuneId}/source`}>What it was read from</a>
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item className={ITEM} onSelect={onKeys}>
            Keys and signs (?)
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
