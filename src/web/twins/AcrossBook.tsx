import { Link } from 'react-router';
import { likenessWords } from '#words/alignment';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { usePartLikenessesQuery } from '../api/bookApi';
import { Alert } from '../ui/Alert';

/** Tunes of the book that are like this one, and parts that it shares with others. */
export function AcrossBook({ id }: { readonly id: string }) {
  const { data: found, error, isLoading } = usePartLikenessesQuery(id, { refetchOnMountOrArgChange: true });
  if (isLoading) return <p className="text-muted">Looking through the book …</p>;
  if (error !== undefined || !found)
    return <Alert>The book cannot be searched. {failureWords(error as Failure)}</Alert>;
  if (found.tunes.length === 0 && found.parts.length === 0)
    return (
      <p className="max-w-xl">
        No other tune of the book has a melody like this one or like one of its parts. Keys, octaves and ornaments do
        not matter for that.
      </p>
    );
  return (
    <div className="flex flex-col gap-4">
      {found.tunes.length > 0 && (
        <section aria-labelledby="like-tunes">
          <h3 id="like-tunes" className="mb-1 text-lg">
            Tunes like it
          </h3>
          <ul>
            {found.tunes.map((tune) => (
              <li key={tune.id} className="border-t border-line py-1.5">
                <TuneLink id={tune.id} title={tune.title} />{' '}
                <span className="text-muted">{likenessWords(tune.share, -tune.semitones)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {found.parts.length > 0 && (
        <section aria-labelledby="like-parts">
          <h3 id="like-parts" className="mb-1 text-lg">
            Parts found in other tunes
          </h3>
          <ul>
            {found.parts.map((part) => (
              <li key={`${part.part} ${part.id} ${part.ofPart}`} className="border-t border-line py-1.5">
                {part.part} is the {part.ofPart} of <TuneLink id={part.id} title={part.title} />{' '}
                <span className="text-muted">{likenessWords(part.share, -part.semitones)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function TuneLink({ id, title }: { readonly id: string; readonly title: string }) {
  return (
    <Link to={`/tunes/${id}`} className="font-serif text-lead font-bold text-woad hover:underline">
      {title}
    </Link>
  );
}
