import { Link, NavLink, useParams } from 'react-router';
import { ARPEGGIO, DRILL_KINDS, type DrillKind, isTechnique, patternTechnique } from '#core/drills';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { DRILL_NAMES, STAGE_WORDS, techniqueWords } from '#words/tuneDrill';
import type { Failure } from '../api/answer';
import { useFacetsQuery, useTunesOfTechniqueQuery } from '../api/bookApi';
import { selectWords } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { NotRead } from '../ui/PageState';
import { useTitle } from '../ui/useTitle';
import { STAGES_OF } from './stagesOf';

/** Technique first: from a skill to its drill, and to the tunes of the book that use it. */
export default function TechniquePage() {
  const { technique } = useParams();
  const kind = DRILL_KINDS.find((own) => own === technique) ?? null;
  useTitle(kind ? DRILL_NAMES[kind].name : null, 'Technique');
  const { data: facets } = useFacetsQuery();
  const counts = new Map(facets?.techniques.map(({ value, count }) => [value, count]));
  return (
    <main className="h-full overflow-y-auto px-5 py-4 lg:px-8">
      <header className="mb-3">
        <h1 className="text-page leading-tight">Technique</h1>
        <p className="text-muted">
          Begin with a skill: its drill, and the tunes that use it ·{' '}
          <Link to="/practice" className="text-woad underline underline-offset-3">
            today’s session
          </Link>
        </p>
      </header>
      <div className="flex flex-col gap-x-10 gap-y-5 md:flex-row">
        <nav aria-label="Skills" className={`md:w-60 md:shrink-0 ${kind ? 'max-md:hidden' : ''}`}>
          <ul>
            {DRILL_KINDS.map((own) => (
              <li key={own}>
                <NavLink
                  to={`/practice/technique/${own}`}
                  className={({ isActive }) =>
                    `flex min-h-9 items-center justify-between gap-3 rounded-md border-l-3 px-3 hover:bg-band ${
                      isActive ? 'border-woad bg-surface font-bold' : 'border-transparent'
                    }`
                  }
                >
                  {DRILL_NAMES[own].name}
                  <span className="text-hint font-normal text-muted">
                    {isTechnique(own) ? counted(counts.get(own) ?? 0, 'tune') : ''}
                  </span>
                </NavLink>
              </li>
            ))}
            {(counts.get(ARPEGGIO) ?? 0) > 0 && (
              <li className="mt-2 border-t border-line pt-2">
                <Link
                  to={`/?technique=${ARPEGGIO}`}
                  className="flex min-h-9 items-center justify-between gap-3 rounded-md border-l-3 border-transparent px-3 hover:bg-band"
                >
                  Arpeggios in the book
                  <span className="text-hint text-muted">{counted(counts.get(ARPEGGIO)!, 'tune')}</span>
                </Link>
              </li>
            )}
          </ul>
        </nav>
        {kind ? (
          <Skill key={kind} kind={kind} counts={counts} />
        ) : (
          <p className="text-muted max-md:hidden">Choose a skill.</p>
        )}
      </div>
    </main>
  );
}

/** `in B`; in every part: nothing is said. */
function usedInWords(parts: readonly string[], form: string): string | null {
  // Names of one letter stand without spaces: AABB.
  const all = new Set(form.includes(' ') ? form.split(' ') : form);
  return parts.length === 0 || parts.length >= all.size ? null : `in ${parts.join(' and ')}`;
}

interface SkillProps {
  readonly kind: DrillKind;
  readonly counts: ReadonlyMap<string, number>;
}

/** A skill: what it is for, how its drill goes, and tunes to take it from. */
function Skill({ kind, counts }: SkillProps) {
  const words = useAppSelector(selectWords);
  const technique = isTechnique(kind) ? kind : null;
  const { data: tunes, error, refetch } = useTunesOfTechniqueQuery(technique);
  const { name, about } = DRILL_NAMES[kind];
  const patterns = [...counts].filter(([value]) => value.startsWith(patternTechnique('')));
  return (
    <section aria-labelledby="skill" className="min-w-0 flex-1" data-skill={kind}>
      <p className="mb-1 md:hidden">
        <Link to="/practice/technique" className="text-woad underline underline-offset-3">
          all skills
        </Link>
      </p>
      <h2 id="skill" className="text-room leading-tight">
        {name}
      </h2>
      <p className="text-lead">{about}</p>
      <h3 className="mt-4 mb-1 text-lg">Its drill</h3>
      <ol className="list-decimal pl-6">
        {STAGES_OF[kind].map((code, i) => (
          <li key={i}>{STAGE_WORDS[code]}</li>
        ))}
      </ol>
      {kind === 'pattern' && patterns.length > 0 && (
        <>
          <h3 className="mt-4 mb-1 text-lg">Bowings in your book</h3>
          <ul className="flex flex-wrap gap-x-5 gap-y-1">
            {patterns.map(([value, count]) => (
              <li key={value}>
                <Link to={`/?technique=${value}`} className="text-woad underline underline-offset-3">
                  {techniqueWords(value, words)}
                </Link>{' '}
                <span className="text-muted">{counted(count, 'tune')}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <h3 className="mt-4 mb-1 text-lg">{technique ? 'Tunes that use it' : 'From any tune'}</h3>
      {error !== undefined && <NotRead words={failureWords(error as Failure)} onRetry={() => void refetch()} />}
      {tunes?.length === 0 && (
        <p className="text-muted">
          No tune of the book asks for it. Take the drill from any tune in its practice room.
        </p>
      )}
      <ul className="max-w-2xl">
        {tunes?.map(({ id, title, danceType, form, usedIn }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-1.5">
            <Link
              to={`/tunes/${id}/practice`}
              className="min-w-0 flex-1 font-serif font-bold hover:text-woad hover:underline"
            >
              {title}{' '}
              <span className="font-sans text-small font-normal text-muted">
                {[danceType, technique && usedInWords(usedIn ?? [], form)].filter(Boolean).join(' · ')}
              </span>
            </Link>
            <Link
              to={`/tunes/${id}/practice/drill-${kind}`}
              className="rounded-md border border-line bg-surface px-2 py-0.5 text-small hover:border-soft"
              aria-label={`Practise ${name} in the key of ${title}`}
            >
              practise the drill
            </Link>
          </li>
        ))}
      </ul>
      {technique && (tunes?.length ?? 0) > 0 && (
        <p className="mt-2">
          <Link to={`/?technique=${technique}`} className="text-woad underline underline-offset-3">
            all of them in the book
          </Link>
        </p>
      )}
    </section>
  );
}
