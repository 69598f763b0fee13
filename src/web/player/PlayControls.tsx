import { Play, Repeat, Square } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { TuneReport } from '#core/report';
import { SignButton } from '../ui/Button';
import { ListenMenu } from './ListenMenu';
import type { Span } from './span';
import type { Listening } from './usePlayer';

interface PlayControlsProps {
  readonly listening: Listening;
  readonly report: TuneReport;
  /** What is played: from the selection on, or the selection itself where it loops. */
  readonly spanFor: (loops: boolean) => Span | null;
  /** What a loop would play: `bars 3–4 of A`. */
  readonly looped: string;
}

/** Play, loop, and how it is listened to. */
export function PlayControls({ listening, report, spanFor, looped }: PlayControlsProps) {
  const { state, settings, setSettings, toggle } = listening;
  const isOn = state.status !== 'idle';
  const hasNotes = report.unrolled.notes.length > 0;
  return (
    <div
      className="flex items-center gap-1"
      data-player={state.status}
      data-underruns={state.underruns}
      data-rounds={state.rounds}
    >
      <SignButton
        label={
          isOn ? 'Stop (Space)' : settings.loop ? `Play ${looped} over and over (Space)` : 'Play from here (Space)'
        }
        className="border border-line text-woad"
        disabled={!hasNotes}
        onClick={() => toggle(spanFor(settings.loop))}
      >
        {isOn ? (
          <Square size={16} aria-hidden fill="currentColor" />
        ) : (
          <Play size={18} aria-hidden fill="currentColor" />
        )}
      </SignButton>
      <SignButton
        label={settings.loop ? `Looping ${looped}: play on instead (X)` : `Loop ${looped} (X)`}
        aria-pressed={settings.loop && hasNotes}
        disabled={!hasNotes}
        className="aria-pressed:bg-band aria-pressed:text-woad"
        onClick={() => setSettings({ ...settings, loop: !settings.loop })}
      >
        <Repeat size={18} aria-hidden />
      </SignButton>
      <ListenMenu listening={listening} report={report} span={spanFor(true)} />
    </div>
  );
}

/** What is going on, in words: everything that is heard is also to be read. */
export function PlayingWords({ listening, beatWords }: { readonly listening: Listening; readonly beatWords: string }) {
  const { player, state, settings } = listening;
  const [moment, setMoment] = useState<'counting' | 'answer' | null>(null);
  useEffect(() => {
    if (state.status !== 'playing') return;
    const timer = setInterval(() => {
      const where = player.where();
      setMoment(where?.countdown != null ? 'counting' : where?.isAnswer ? 'answer' : null);
    }, 100);
    return () => clearInterval(timer);
  }, [player, state.status]);
  const words = [
    state.status === 'starting'
      ? 'starting the sound …'
      : moment === 'counting'
        ? 'counting in'
        : moment === 'answer'
          ? 'your turn'
          : '',
    state.isSilent ? 'no sound device: only the marker moves' : '',
    state.isCompared ? 'the other way' : '',
    state.isTurned ? 'on the other bow' : '',
    settings.climb > 0 && state.bpm !== null ? `at ${Math.round(state.bpm)} ${beatWords}` : '',
    state.rounds > 0 ? `round ${state.rounds + 1}` : '',
  ].filter(Boolean);
  return (
    <span role="status" data-playing>
      {words.join(' · ')}
    </span>
  );
}
