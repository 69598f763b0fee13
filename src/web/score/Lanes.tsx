import { memo } from 'react';
import type { NoteState } from '#core/noteStates';
import { PLACES } from '#core/tune';
import type { Tuning } from '#core/tuning';
import { stringName } from '#words/strings';
import { TERMS } from '#words/terms';
import type { LineGeometry } from './geometry';
import {
  angleY,
  armLane,
  BEAT_DEPTH,
  bowLane,
  type HairScale,
  hairY,
  type LaneName,
  LANES,
  roomLane,
} from './lanePaths';

export interface LaneSettings {
  readonly fingers: boolean;
  /** Rows of calls and of letters under the staff. */
  readonly calls: boolean;
  /** A row of strings, each where the melody comes to it. */
  readonly strings?: boolean;
  readonly letters: boolean;
  readonly bow: boolean;
  readonly arm: boolean;
  readonly room: boolean;
  /** Bow signs of the other passes too, where they differ. */
  readonly otherPasses: boolean;
  readonly hair: HairScale;
  readonly neighbourAngle: number;
  readonly marginDegrees: number;
  /** Strings that are tuned otherwise than their names say are told with their pitch. */
  readonly tuning?: Tuning;
}

const ORDER: readonly LaneName[] = ['bow', 'arm', 'room'];

export function lanesHeight(lanes: LaneSettings): number {
  return ORDER.filter((name) => lanes[name]).reduce((sum, name) => sum + LANES[name].height + LANES[name].gap, 0);
}

interface LaneProps {
  readonly geometry: LineGeometry;
  readonly states: ReadonlyMap<string, NoteState>;
  readonly lanes: LaneSettings;
}

/** Bow, arm and room lanes under one staff line. */
export const Lanes = memo(function Lanes({ geometry, states, lanes, top }: LaneProps & { readonly top: number }) {
  let y = top;
  const places = new Map<LaneName, number>();
  for (const name of ORDER)
    if (lanes[name]) {
      places.set(name, y);
      y += LANES[name].height + LANES[name].gap;
    }
  const props = { geometry, states, lanes };
  return (
    <g aria-hidden>
      {places.has('bow') && <BowLane {...props} y={places.get('bow')!} />}
      {places.has('arm') && <ArmLane {...props} y={places.get('arm')!} />}
      {places.has('room') && <RoomLane {...props} y={places.get('room')!} />}
    </g>
  );
});

const LABEL = 'fill-muted text-mark';

function BowLane({ geometry, states, lanes, y }: LaneProps & { readonly y: number }) {
  const { height } = LANES.bow;
  const { hair } = lanes;
  const paths = bowLane(geometry, states, hair);
  const windowTop = hairY(hair.windowLowCm, hair, height);
  const windowBottom = hairY(hair.windowHighCm, hair, height);
  return (
    <g transform={`translate(0 ${y})`} data-lane="bow">
      <rect x={0} y={windowTop} width={geometry.endX} height={windowBottom - windowTop} fill="var(--band)" rx={2} />
      <path d={`M0 0.5H${geometry.endX}M0 ${height - 0.5}H${geometry.endX}`} stroke="var(--line)" fill="none" />
      <text x={4} y={windowTop + 11} className={LABEL}>
        frog
      </text>
      <text x={4} y={windowBottom - 4} className={LABEL}>
        tip
      </text>
      <path d={paths.strokes} stroke="var(--ink)" strokeWidth="1.5" fill="none" strokeLinecap="round" />
      <path
        d={paths.outOfHair}
        stroke="var(--madder)"
        strokeWidth="2"
        strokeDasharray="5 3"
        fill="none"
        strokeLinecap="round"
      />
      <path d={paths.pulses} fill="var(--ink)" data-pulses />
      <path d={paths.ticks} stroke="var(--ink)" strokeWidth="1.4" fill="none" />
      <path d={paths.downHeads} fill="var(--ink)" data-heads="down" />
      <path d={paths.upHeads} fill="var(--surface)" stroke="var(--ink)" strokeWidth="1.4" data-heads="up" />
    </g>
  );
}

function ArmLane({ geometry, states, lanes, y }: LaneProps & { readonly y: number }) {
  const { height } = LANES.arm;
  const { neighbourAngle, marginDegrees } = lanes;
  const { path, pairs, skips } = armLane(geometry, states, neighbourAngle);
  const margin = (marginDegrees / (4 * neighbourAngle)) * height;
  return (
    <g transform={`translate(0 ${y})`} data-lane="arm">
      {PLACES.map((place, i) => {
        const centre = angleY((i - 1.5) * neighbourAngle, neighbourAngle, height);
        const half = height / 8 - margin;
        return (
          <g key={place}>
            <rect x={0} y={centre - half} width={geometry.endX} height={2 * half} fill="var(--band)" rx={2} />
            <text x={4} y={centre + 4} className={LABEL}>
              {lanes.tuning ? stringName(place, lanes.tuning) : place}
            </text>
          </g>
        );
      })}
      <path d={pairs} stroke="var(--walnut)" strokeOpacity="0.35" strokeWidth="6" fill="none" />
      <path d={path} stroke="var(--walnut)" strokeWidth="1.8" fill="none" strokeLinejoin="round" />
      {skips.map(({ x, y: at, inSlur }) => (
        <path
          key={x}
          d={`M${x - 3} ${at - 3}l6 6m0-6l-6 6`}
          stroke={inSlur ? 'var(--madder)' : 'var(--weld)'}
          strokeWidth="1.8"
          fill="none"
        />
      ))}
    </g>
  );
}

function RoomLane({ geometry, states, y }: LaneProps & { readonly y: number }) {
  const height = LANES.room.height - BEAT_DEPTH;
  const { easy, tight, broken, beats, offbeats } = roomLane(geometry, states);
  return (
    <g transform={`translate(0 ${y})`} data-lane="room">
      <path d={`M0 ${height}H${geometry.endX}`} stroke="var(--line)" fill="none" />
      <text x={4} y={height - 4} className={LABEL}>
        room
        <title>{TERMS.room}</title>
      </text>
      <path d={easy} fill="var(--lichen)" />
      <path d={tight} fill="var(--weld)" />
      <path d={broken} fill="var(--madder)" />
      <path d={beats} stroke="var(--walnut)" strokeWidth="2" data-beats />
      <path d={offbeats} stroke="var(--soft)" strokeWidth="1.5" />
    </g>
  );
}
