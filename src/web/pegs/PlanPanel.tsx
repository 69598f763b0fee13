import { Check } from 'lucide-react';
import { parsePitch } from '#core/pitch';
import type { RetunePlan, RetuneStep } from '#core/tuning';
import { writtenPitch } from '#words/pitch';
import { SAFETY, toRetune } from '#words/retuneJson';
import { Button } from '../ui/Button';
import { SmallTable } from '../ui/SmallTable';

interface PlanPanelProps {
  readonly plan: RetunePlan;
  /** Step at hand; as many as there are when all are done. */
  readonly at: number;
  readonly leftHanded: boolean;
  /** An old or valuable instrument. */
  readonly isOld: boolean;
  readonly onAt: (at: number) => void;
}

const TURNS: Readonly<Record<RetuneStep['turn'], string>> = { up: 'up', down: 'down', check: 'once more' };
const written = (name: string) => writtenPitch(parsePitch(name)!);

/** What the change asks of each string, the steps in their order, and what is said always. */
export function PlanPanel({ plan, at, leftHanded, isOld, onAt }: PlanPanelProps) {
  const printed = toRetune(plan);
  const percent = Math.round(100 * (plan.totalTensionRatio - 1));
  const strings = leftHanded ? [...printed.strings].reverse() : printed.strings;
  return (
    <section aria-labelledby="plan">
      <h2 id="plan" className="mb-1 text-xl">
        The way there
      </h2>
      {plan.steps.length === 0 ? (
        <p className="text-muted">The fiddle is in this tuning already: nothing to turn. Bow a string to check it.</p>
      ) : (
        <>
          <SmallTable
            label="What each string does"
            heads={['string', 'from, to', { figures: 'tension' }]}
            className="mb-2 text-small tabular-nums"
            foot={
              <tr className="border-t border-line">
                <th scope="row" colSpan={2} className="py-1 font-normal text-muted">
                  all four
                </th>
                <td className="py-1 pr-2 text-right">{percent === 0 ? 'as before' : `${signed(percent)} %`}</td>
              </tr>
            }
          >
            {strings.map(({ place, from, to, semitones, newtons, tensionRatio, warnings }) => (
              <tr key={place} className="border-t border-line align-top">
                <th scope="row" className="py-1 pr-2 font-bold">
                  {place}
                </th>
                <td className="py-1 pr-2">
                  {semitones === 0
                    ? `${written(to)} stays`
                    : `${written(from)} → ${written(to)}, ${signed(semitones)} semitones`}
                  {warnings.map((warning) => (
                    <span key={warning} className="block text-madder">
                      {warning}
                    </span>
                  ))}
                </td>
                <td className="py-1 pr-2 text-right whitespace-nowrap">
                  {newtons.to.toFixed(1)} N{semitones !== 0 && ` (${signed(Math.round(100 * (tensionRatio - 1)))} %)`}
                </td>
              </tr>
            ))}
          </SmallTable>
          {printed.warnings.map((warning) => (
            <p key={warning} className="mb-1 text-madder">
              {warning.charAt(0).toUpperCase() + warning.slice(1)}.
            </p>
          ))}
          {isOld && plan.strings.some(({ semitones }) => semitones > 0) && (
            <p className="mb-1 text-madder">
              This instrument is old or valuable and strings go up: ask a luthier first.
            </p>
          )}
          <ol className="mb-2" data-steps>
            {plan.steps.map((step, i) => (
              <li key={`${step.round}${step.place}`}>
                <button
                  type="button"
                  aria-current={i === at ? 'step' : undefined}
                  onClick={() => onAt(i)}
                  className="flex w-full items-center gap-2 rounded-md px-2 py-0.5 text-left hover:bg-band aria-[current=step]:bg-band aria-[current=step]:font-bold"
                >
                  {i < at ? (
                    <Check size={15} className="shrink-0 text-lichen-ink" aria-label="done" role="img" />
                  ) : (
                    <span className="w-[15px] shrink-0 text-center text-fine text-muted">{i + 1}</span>
                  )}
                  <span>
                    {step.place} {TURNS[step.turn]} to {writtenPitch(step.to)}
                    <span className="font-normal text-muted">
                      ,{' '}
                      {step.reference
                        ? `${intervalFrom(step.reference.interval)} ${step.reference.place}`
                        : 'by a tone'}
                    </span>
                  </span>
                </button>
              </li>
            ))}
          </ol>
          {at < plan.steps.length && (
            <Button look="main" onClick={() => onAt(at + 1)}>
              {at === plan.steps.length - 1 ? 'Done: all strings are in tune' : 'In tune: next string'}
            </Button>
          )}
        </>
      )}
      <ul className="mt-3 list-disc rounded-md bg-band py-2 pr-3 pl-7 text-small" data-safety>
        {SAFETY.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}

/** `an octave under` for `octave down`, `a perfect fifth over` for `perfect fifth up`. */
function intervalFrom(interval: string): string {
  if (interval === 'unison') return 'in unison with';
  const [, name, way] = /^(.*) (up|down)$/.exec(interval) ?? [undefined, interval, 'up'];
  const article = /^[aeiou]/.test(name!) ? 'an' : 'a';
  return `${article} ${name} ${way === 'up' ? 'over' : 'under'}`;
}

function signed(value: number): string {
  return `${value > 0 ? '+' : '−'}${Math.abs(value)}`;
}
