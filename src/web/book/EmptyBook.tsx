import { ArchiveRestore, BookOpenCheck, FileInput, FilePlus2 } from 'lucide-react';
import { useState } from 'react';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useLoadDemoMutation } from '../api/bookApi';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';

/** What a new player can do first. */
export function EmptyBook(props: {
  readonly onImport: () => void;
  readonly onBegin: () => void;
  readonly onFiles: () => void;
}) {
  const { onImport, onBegin, onFiles } = props;
  const [loadDemo, { error, isLoading }] = useLoadDemoMutation();
  const [isAsked, setAsked] = useState(false);
  const ways = [
    {
      Icon: FileInput,
      deed: 'Bring tunes in',
      words: 'ABC, MusicXML, MIDI or Morrin plans: drop files here, paste text, or choose them. One tune or thousands.',
      onClick: onImport,
    },
    {
      Icon: FilePlus2,
      deed: 'Begin a tune',
      words: 'From nothing: call the notes by string and finger, by letters, or set them on the staff.',
      onClick: onBegin,
    },
    {
      Icon: BookOpenCheck,
      deed: isLoading ? 'Loading …' : 'Load the demo',
      words: 'Thirteen tunes of the Saltmarsh Boathouse, each with a problem to solve.',
      onClick: () => {
        setAsked(true);
        void loadDemo();
      },
    },
    {
      Icon: ArchiveRestore,
      deed: 'Restore a backup',
      words: 'A file you saved on another machine, or earlier on this one.',
      onClick: onFiles,
    },
  ];
  return (
    <section className="max-w-2xl py-8" aria-labelledby="empty-book">
      <h2 id="empty-book" className="mb-4 text-xl">
        The book is empty
      </h2>
      <ul className="flex flex-col gap-3">
        {ways.map(({ Icon, deed, words, onClick }) => (
          <li key={deed} className="flex items-start gap-4 border-t border-line pt-3">
            <Icon size={22} strokeWidth={1.6} className="mt-1 shrink-0 text-walnut" aria-hidden />
            <p className="min-w-0 flex-1">{words}</p>
            <Button onClick={onClick} disabled={isLoading}>
              {deed}
            </Button>
          </li>
        ))}
      </ul>
      {isAsked && error !== undefined && (
        <Alert className="mt-3">The demo was not loaded. {failureWords(error as Failure)}</Alert>
      )}
    </section>
  );
}
