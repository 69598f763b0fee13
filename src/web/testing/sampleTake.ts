import type { KeptTake } from '../takes/keptTakes';

/** A made-up take; what a test is about is set. */
export function sampleTake(
  more: Partial<KeptTake> = {},
  figures: Partial<KeptTake['result']['figures']> = {},
): KeptTake {
  return {
    id: 'one',
    tuneId: 'tide',
    at: '2026-11-02T10:00:00.000Z',
    source: 'microphone',
    bpm: 90,
    span: null,
    isAccepted: false,
    bytes: 0,
    sampleRate: 44100,
    result: {
      notes: [],
      findings: [],
      rows: [],
      clean: true,
      seconds: 20,
      clipped: 0,
      figures: {
        tempo: { bpm: 90, driftPercentPerMinute: 0, driftUncertainty: 1, steadinessMs: 8 },
        lilt: [],
        offbeatDecibels: null,
        holdFactor: null,
        silenceFactor: null,
        fingers: [],
        biteMs: null,
        lowTones: [],
        notes: 40,
        heardNotes: 40,
        ...figures,
      },
    },
    ...more,
  };
}
