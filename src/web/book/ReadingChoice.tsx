import type { FileChoice } from '#formats/file';
import type { Voice } from '#formats/score';
import { Select } from '../ui/Select';
import type { QueuedFile } from './importQueue';

const GRIDS = [
  { value: 8, name: 'eighth' },
  { value: 16, name: 'sixteenth' },
  { value: 32, name: 'thirty-second' },
] as const;

/** How a file is to be read, where there is a choice: which voice is the melody, and how fine a MIDI file is heard. */
export function ReadingChoice({
  file,
  onChoose,
}: {
  readonly file: QueuedFile;
  readonly onChoose: (choice: FileChoice) => void;
}) {
  const { items, choice } = file;
  const voices = new Map<string, Voice>(
    items.flatMap(({ read }) => read.voices.map((voice) => [voice.id, voice] as const)),
  );
  const quantised = items.find(({ read }) => read.quantised)?.read.quantised ?? null;
  if (voices.size === 0 && !quantised) return null;
  const main = items.find(({ read }) => read.voices.length > 0)?.read.voices;
  return (
    <fieldset className="my-2 flex flex-wrap items-end gap-x-5 gap-y-2 rounded-md border border-line bg-paper px-3 py-2">
      <legend className="sr-only">How it is read</legend>
      {voices.size > 0 && (
        <label className="flex flex-col text-small">
          <span className="text-muted">Melody</span>
          <Select
            className="min-h-9 max-w-72 rounded-md border border-line bg-surface px-1.5 text-control"
            value={choice.voice}
            options={[
              { value: undefined, name: 'as it was found' },
              ...[...voices.values()].map(({ id, name, notes }) => ({ value: id, name: `${name} (${notes} notes)` })),
            ]}
            onChange={(voice) => onChoose({ ...choice, voice })}
          />
        </label>
      )}
      {quantised && (
        <>
          <label className="flex flex-col text-small">
            <span className="text-muted">Shortest note</span>
            <Select
              className="min-h-9 rounded-md border border-line bg-surface px-1.5 text-control"
              value={quantised.grid.shortest}
              options={GRIDS}
              onChange={(shortest) => onChoose({ ...choice, grid: { ...quantised.grid, shortest } })}
            />
          </label>
          <label className="flex min-h-9 items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-woad"
              checked={quantised.grid.triplets}
              onChange={({ target }) => onChoose({ ...choice, grid: { ...quantised.grid, triplets: target.checked } })}
            />
            triplets
          </label>
          <p className="text-small text-muted">
            Onsets were moved by {quantised.meanMs.toFixed(0)} ms on average, {quantised.worstMs.toFixed(0)} at most;{' '}
            {quantised.moved === 0 ? 'none' : quantised.moved} by more than a twentieth of a beat.
          </p>
        </>
      )}
      {main && main.length > 1 && choice.voice === undefined && !quantised && (
        <p className="text-small text-muted">
          The first voice, or the one with the most notes, is taken for the melody.
        </p>
      )}
    </fieldset>
  );
}
