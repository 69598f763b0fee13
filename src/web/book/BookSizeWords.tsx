import { sizeWords } from '#words/size';
import { useBookSizeQuery } from '../api/bookApi';

/** What the book takes on the disk, in a line. */
export function BookSizeWords() {
  const { data: size } = useBookSizeQuery();
  if (!size) return null;
  return (
    <p className="mt-3 text-small text-muted" data-book-size>
      The book takes {sizeWords(size.whole)}: tunes {sizeWords(size.tunes)}, earlier edits and versions{' '}
      {sizeWords(size.revisions)}, files it was read from {sizeWords(size.originals)}, the rest is the database itself.
    </p>
  );
}
