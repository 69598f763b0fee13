import { useEffect, useRef } from 'react';
import { Link, useLocation } from 'react-router';
import { SKILL_DRILLS, skillOf } from '#core/readiness';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { skillFigureWords, skillWords } from '#words/readiness';
import { DRILL_NAMES } from '#words/tuneDrill';
import { useReadinessQuery } from '../api/abilityApi';
import type { Failure } from '../api/answer';
import { useAbility } from '../api/useAbility';
import { selectWords } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { NotRead } from '../ui/PageState';
import { SmallTable } from '../ui/SmallTable';

/** What a tune asks for that was not shown clean yet, with its drills, and the tunes of the book that lead there. */
export function Readiness({ id }: { readonly id: string }) {
  const { data, error, refetch } = useReadinessQuery(id);
  const { isLearning } = useAbility();
  const words = useAppSelector(selectWords);
  const { hash } = useLocation();
  const place = useRef<HTMLElement>(null);
  const isAsked = hash === '#ready' && data !== undefined;
  useEffect(() => {
    if (isAsked) place.current?.scrollIntoView({ block: 'start' });
  }, [isAsked]);
  return (
    <section
      id="ready"
      ref={place}
      aria-labelledby="ready-title"
      className={`mt-6 transition-opacity ${isLearning ? 'opacity-60' : ''}`}
      data-ready={data?.isKnown ? data.missing.length : undefined}
    >
      <h2 id="ready-title" className="text-xl">
        New to you in this tune
      </h2>
      {error !== undefined && !data ? (
        <NotRead words={failureWords(error as Failure)} onRetry={() => void refetch()} />
      ) : !data ? (
        <p className="text-muted">Looking …</p>
      ) : !data.isKnown ? (
        <p className="text-muted">
          Log a few stretches as you practise: then it says what you have played clean already.
        </p>
      ) : data.missing.length === 0 ? (
        <p>Nothing: all that it asks for you have played clean, here or in another tune.</p>
      ) : (
        <>
          <SmallTable
            label="Skills that are new"
            minWidth="30rem"
            className="max-w-3xl"
            heads={['skill', 'the tune needs', 'you have played clean', 'its drill']}
          >
            {data.missing.map(({ name, needs, shown }) => {
              const drill = SKILL_DRILLS[skillOf(name)];
              return (
                <tr key={name} className="border-t border-line">
                  <td className="py-1 pr-3 font-bold">{skillWords(name, words)}</td>
                  <td className="pr-3">{skillFigureWords(name, needs)}</td>
                  <td className="pr-3 text-muted">{skillFigureWords(name, shown)}</td>
                  <td>
                    {drill ? (
                      <Link
                        to={`/tunes/${id}/practice/drill-${drill}`}
                        className="text-woad underline underline-offset-3"
                      >
                        {DRILL_NAMES[drill].name}
                      </Link>
                    ) : (
                      <span className="text-muted">from the tune itself</span>
                    )}
                  </td>
                </tr>
              );
            })}
          </SmallTable>
          {data.stones === null ? (
            <p className="mt-2 text-muted">Your book has no tunes that lead there one skill at a time.</p>
          ) : (
            data.stones.length > 0 && (
              <div className="mt-3" data-stones={data.stones.length}>
                <h3 className="text-lg">
                  {counted(data.stones.length, 'tune')} on the way, {data.stones.length > 1 ? 'each ' : ''}with one new
                  skill
                </h3>
                <ol className="list-decimal pl-6">
                  {data.stones.map((stone) => (
                    <li key={stone.id}>
                      <Link to={`/tunes/${stone.id}/practice`} className="text-woad underline underline-offset-3">
                        {stone.title}
                      </Link>{' '}
                      <span className="text-muted">adds {skillWords(stone.adds, words)}</span>
                    </li>
                  ))}
                  <li className="font-bold">this tune</li>
                </ol>
              </div>
            )
          )}
        </>
      )}
    </section>
  );
}
