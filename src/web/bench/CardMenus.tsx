import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { type ReactNode, useMemo } from 'react';
import type { Words } from '#contract/settings';
import { setDrone } from '#core/editing';
import { pinFingering, searchFingering } from '#core/fingering';
import { ornamentFacts, ORNAMENTS } from '#core/ornaments';
import { ornamentSceneOf } from '#core/report';
import { writtenNotes } from '#core/tune';
import { callWords } from '#words/hand';
import { ornamentName } from '#words/ornament';
import { stringName } from '#words/strings';
import { type Bench, runCommand } from '../commands/command';
import { commandOf } from '../commands/commands';
import { dronesBeside, ornamentCommandId } from '../commands/markCommands';
import { MENU_ITEM, MENU_PANEL } from './CommandMenu';

/** Fingerings offered at the note; the panel has them all. */
const FINGERINGS = 5;

interface CardMenusProps {
  readonly bench: Bench;
  readonly words: Pick<Words, 'cut' | 'flick'>;
}

/** Ornaments, drones and fingers of the notes at hand. */
export function CardMenus({ bench, words }: CardMenusProps) {
  return (
    <div className="flex items-center gap-0.5">
      <CardMenu label="ornament">
        <OrnamentItems bench={bench} words={words} />
      </CardMenu>
      <CardMenu label="drone">
        <DroneItems bench={bench} />
      </CardMenu>
      <CardMenu label="finger">
        <FingerItems bench={bench} />
      </CardMenu>
    </div>
  );
}

function CardMenu({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="flex h-8 items-center gap-0.5 rounded-md px-1.5 text-small text-muted hover:bg-band aria-expanded:bg-band">
        {label} <ChevronDown size={13} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content sideOffset={4} align="start" collisionPadding={8} className={`${MENU_PANEL} max-w-80`}>
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Everything that fits here, in two columns so that the score stays in sight; what does not fit is named. */
function OrnamentItems({ bench, words }: CardMenusProps) {
  const { report, tune, ids } = bench;
  const { fit, rest } = useMemo(() => {
    const scene = ornamentSceneOf(report);
    const indices = report.unrolled.notes.filter(({ note }) => note.id === ids[0]).map(({ index }) => index);
    const marks = writtenNotes(tune).find(({ id }) => id === ids[0])?.marks ?? [];
    const all = ORNAMENTS.map((kind) => ({
      kind,
      isOn: marks.includes(kind),
      obstacle: indices.flatMap((index) => ornamentFacts(scene, index, kind).obstacles)[0] ?? null,
    }));
    return {
      fit: all.filter(({ isOn, obstacle }) => isOn || !obstacle),
      rest: all.filter(({ isOn, obstacle }) => !isOn && obstacle),
    };
  }, [report, tune, ids]);
  return (
    <>
      <div className="columns-2 gap-1">
        {fit.map(({ kind, isOn }) => (
          <DropdownMenu.CheckboxItem
            key={kind}
            checked={isOn}
            onSelect={() => runCommand(commandOf(ornamentCommandId(kind)), bench)}
            className={MENU_ITEM}
          >
            {ornamentName(kind, words)}
            <DropdownMenu.ItemIndicator className="text-woad">✓</DropdownMenu.ItemIndicator>
          </DropdownMenu.CheckboxItem>
        ))}
      </div>
      {rest.length > 0 && (
        <p className="px-2 pt-1 text-hint text-muted">
          Does not fit here: {rest.map(({ kind }) => ornamentName(kind, words)).join(', ')}. The reasons are beside the
          score.
        </p>
      )}
      <MoreItem bench={bench} tool="ornaments" />
    </>
  );
}

function DroneItems({ bench }: { readonly bench: Bench }) {
  const { tune, ids, where, edit } = bench;
  const sides = useMemo(() => dronesBeside(bench), [bench]);
  const now = writtenNotes(tune).find(({ id }) => id === ids[0])?.drone;
  const set = (side: 'upper' | 'lower' | null, label: string) =>
    edit(setDrone(tune, new Set(ids), side), `${label} in ${where}`);
  return (
    <>
      {sides.length === 0 && <p className="px-2 py-1 text-muted">No open string can sound with this note.</p>}
      {sides.map(({ kind, place }, at) => (
        <DropdownMenu.CheckboxItem
          key={kind}
          checked={kind === now}
          onSelect={() => set(kind === now ? null : kind, kind === now ? 'no drone' : `drone on ${place}`)}
          className={MENU_ITEM}
        >
          <span>
            the open {stringName(place, tune.tuning)}
            <span className="block text-hint text-muted">
              {kind === 'upper' ? 'above' : 'below'}
              {at === 0 && sides.length > 1 ? ', the sweeter of the two' : ''}
            </span>
          </span>
          <DropdownMenu.ItemIndicator className="text-woad">✓</DropdownMenu.ItemIndicator>
        </DropdownMenu.CheckboxItem>
      ))}
      <DropdownMenu.Item className={MENU_ITEM} disabled={!now} onSelect={() => set(null, 'no drone')}>
        Remove the drone
      </DropdownMenu.Item>
      <MoreItem bench={bench} tool="drones" />
    </>
  );
}

function FingerItems({ bench }: { readonly bench: Bench }) {
  const { tune, report, ids, where, edit } = bench;
  const choices = useMemo(() => {
    const { hand, instrument } = report.settings;
    const found = searchFingering(tune, report.unrolled, hand, instrument).notes.get(ids[0] ?? '')?.alternatives ?? [];
    const seen = new Set<string>();
    return found.filter(({ chord }) => {
      const words = callWords(chord);
      return !seen.has(words) && seen.add(words);
    });
  }, [tune, report, ids]);
  const now = report.fingers.get(ids[0] ?? '');
  return (
    <>
      {choices.length === 0 && <p className="px-2 py-1 text-muted">No position up to the fifth has this note.</p>}
      {choices.slice(0, FINGERINGS).map(({ chord, costsMore }) => {
        const [top] = chord;
        const isNow = now?.place === top!.place && now.finger === top!.finger && now.position === top!.position;
        return (
          <DropdownMenu.CheckboxItem
            key={callWords(chord)}
            checked={isNow}
            onSelect={() => edit(pinFingering(tune, new Map([[ids[0]!, top!]])), `${callWords(chord)} in ${where}`)}
            className={MENU_ITEM}
          >
            <span>
              {callWords(chord)}
              <span className="block text-hint text-muted">
                {costsMore < 0.05 ? 'easiest for the hand' : `${costsMore.toFixed(0)} mm more for the hand`}
              </span>
            </span>
            <DropdownMenu.ItemIndicator className="text-woad">✓</DropdownMenu.ItemIndicator>
          </DropdownMenu.CheckboxItem>
        );
      })}
      <MoreItem bench={bench} tool="fingering" />
    </>
  );
}

/** The whole tool, beside the score. */
function MoreItem({ bench, tool }: { readonly bench: Bench; readonly tool: string }) {
  return (
    <DropdownMenu.Item
      className={`${MENU_ITEM} mt-1 border-t border-line text-woad`}
      onSelect={() => commandOf(tool).run(bench)}
    >
      All of it, beside the score …
    </DropdownMenu.Item>
  );
}
