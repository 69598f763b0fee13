import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useTitle } from '../ui/useTitle';
import type { OpenTune } from './openTuneSlice';
import { SaveMark } from './SaveMark';
import { UndoButtons } from './UndoButtons';

interface RoomHeaderProps {
  readonly open: OpenTune;
  /** Name of the room, for the browser's tab. */
  readonly room: string;
  /** What is told beside the title. */
  readonly children?: ReactNode;
  /** The page has its heading elsewhere, as a sheet of paper has. */
  readonly isHeading?: boolean;
}

/** What every room about a tune has on top: its title, the way back to the bench, how it is saved, and undo. */
export function RoomHeader({ open, room, children, isHeading = true }: RoomHeaderProps) {
  const { title } = open.tune;
  useTitle(title, room);
  const Title = isHeading ? 'h1' : 'p';
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-2 lg:px-5 print:hidden">
      <Title
        className="line-clamp-2 min-w-0 font-serif text-room leading-tight font-bold max-sm:line-clamp-3"
        title={title}
      >
        {title}
      </Title>
      {children}
      <div className="ml-auto flex items-center gap-x-1">
        <Link to={`/tunes/${open.id}`} className="mr-2 text-woad underline underline-offset-3">
          back to the bench
        </Link>
        <SaveMark save={open.save} />
        <UndoButtons open={open} />
      </div>
      <p className="sr-only" role="status">
        {open.said}
      </p>
    </header>
  );
}
