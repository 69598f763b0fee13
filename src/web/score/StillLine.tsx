import type { NoteState } from '#core/noteStates';
import type { Tuning } from '#core/tuning';
import type { LaneSettings } from './Lanes';
import { engravingKey, type LineSpec } from './lines';
import { ScoreLine } from './ScoreLine';
import type { TakeMark } from './TakeTracks';

interface StillLineProps {
  readonly line: LineSpec;
  readonly width: number;
  readonly states: ReadonlyMap<string, NoteState>;
  readonly lanes: LaneSettings;
  readonly tuning: Tuning;
  readonly take?: ReadonlyMap<string, TakeMark> | null;
}

const nothing = () => undefined;

/** A line to be read: nothing in it can be chosen. */
export function StillLine({ line, width, states, lanes, tuning, take = null }: StillLineProps) {
  return (
    <ScoreLine
      line={line}
      lineKey={engravingKey(line)}
      width={width}
      states={states}
      detailStates={states}
      lanes={lanes}
      selectedIds={null}
      tabStopId={null}
      tuning={tuning}
      onPick={nothing}
      onPickWhole={nothing}
      caret={null}
      onStaff={null}
      card={null}
      onBowLength={null}
      onPaintDrones={null}
      take={take}
      isStill
    />
  );
}
