import type { ReactNode } from 'react';
import type { TuneReport } from '#core/report';
import { ordinal } from '#words/ordinal';
import { counted } from '#words/plural';
import { BowSign } from '../ui/signs';
import { GoalTempo } from './GoalTempo';
import type { Goal } from './useGoal';

/** Beside more than these the facts give way to the goal. */
const MANY_PASSES = 6;

interface FootProps {
  readonly report: TuneReport;
  /** Play, loop, how it is listened to and how fast. */
  readonly player: ReactNode;
  /** What is going on while it plays: in place of the facts, so that nothing moves. */
  readonly playing: ReactNode | null;
  readonly passInView: Readonly<Record<string, number>>;
  /** The pass that is heard, as `A1`; null while nothing is played. */
  readonly heardPass: string | null;
  readonly onPass: (part: string, pass: number) => void;
  readonly goal: Goal;
}

/** The player, the passes in playing order with the bow on which each is entered, and the tempo wanted. */
export function Foot(props: FootProps) {
  const { report, player, playing, passInView, heardPass, onPass, goal } = props;
  return (
    <footer className="relative flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line bg-surface px-4 py-2 max-sm:px-2 max-sm:py-1 lg:px-5">
      {player}
      <Thread report={report} passInView={passInView} heardPass={heardPass} onPass={onPass} />
      <GoalTempo report={report} goal={goal} />
      <p
        className={`w-40 text-right text-hint leading-tight text-muted ${
          // On narrow pages what is heard is told over the foot, and the facts give way.
          playing
            ? 'max-xl:absolute max-xl:right-3 max-xl:bottom-full max-xl:mb-1 max-xl:w-auto max-xl:rounded-md max-xl:bg-surface max-xl:px-2 max-xl:py-1 max-xl:shadow'
            : report.figures.ledger.passes.length > MANY_PASSES
              ? 'max-2xl:hidden'
              : 'max-xl:hidden'
        }`}
      >
        {playing ?? (
          <>
            {counted(report.bars, 'bar')}, {report.timing.total.toFixed(0)} s, {report.square ? 'square' : 'crooked'}
          </>
        )}
      </p>
    </footer>
  );
}

type ThreadProps = Pick<FootProps, 'report' | 'passInView' | 'heardPass' | 'onPass'>;

/** The thread of passes; the odd one out is told by colour, sign and words. */
function Thread({ report, passInView, heardPass, onPass }: ThreadProps) {
  const { passes } = report.figures.ledger;
  return (
    // The goal keeps its place beside a long thread, which moves within its own.
    <ol
      className="flex max-w-[55%] overflow-x-auto max-sm:max-w-[calc(100%-5.5rem)] rounded-md border border-line"
      aria-label="Times through the parts"
    >
      {passes.map(({ part, pass, entry }) => {
        const usual = passes.find((other) => other.part === part)!.entry;
        const isOdd = entry !== usual;
        const isShown = (passInView[part] ?? 1) === pass;
        return (
          <li key={`${part}${pass}`} className="border-r border-line last:border-r-0">
            <button
              type="button"
              aria-pressed={isShown}
              aria-current={heardPass === `${part}${pass}` || undefined}
              aria-label={`${part}, ${ordinal(pass)} time: begins on the ${entry ?? 'unknown'}-bow${isOdd ? ', which is not its usual one' : ''}`}
              onClick={() => onPass(part, pass)}
              className={`flex h-9 items-center gap-1.5 px-3 whitespace-nowrap hover:bg-band aria-pressed:bg-band aria-[current]:shadow-[inset_0_-3px_0_var(--woad)] ${isOdd ? 'text-madder' : ''}`}
            >
              <b>{part}</b>
              <span>{pass}</span>
              {entry && <BowSign direction={entry} />}
              {isOdd && <span aria-hidden>!</span>}
            </button>
          </li>
        );
      })}
    </ol>
  );
}
