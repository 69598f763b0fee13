import { applyPattern, PATTERNS } from '#core/bowing';
import { reportTune, type TuneReport } from '#core/report';
import { LILTS } from '#core/tempo';

/** Another way to play a passage, heard by turns with the plan. */
export interface Comparison {
  readonly key: string;
  readonly words: string;
  readonly group: 'lilt' | 'bowing' | 'pulse';
  /** The plan played that other way. */
  readonly report: () => TuneReport;
}

/** What a plan can be compared with: other lilts, patterns of bowing, the other school of pulses. */
export function comparisonsOf({ settings, tune }: TuneReport): Comparison[] {
  const otherPulse = settings.schools.pulse === 'speed' ? 'weight' : 'speed';
  const hasPulses = tune.parts.some(({ events }) =>
    events.some((event) => event.kind === 'note' && event.marks?.includes('pulse')),
  );
  return [
    ...LILTS.filter(({ name }) => name !== settings.lilt.name).map((lilt): Comparison => ({
      key: `lilt:${lilt.name}`,
      words: lilt.name === 'straight' ? 'played straight' : `a lilt that is ${lilt.name}`,
      group: 'lilt',
      report: () => reportTune(tune, { ...settings, lilt }),
    })),
    ...PATTERNS.map((pattern): Comparison => ({
      key: `pattern:${pattern.name}`,
      words: pattern.name.replaceAll('-', ' '),
      group: 'bowing',
      report: () => reportTune(applyPattern(tune, pattern), settings),
    })),
    ...(hasPulses
      ? [
          {
            key: 'pulse:other',
            words: `pulses by ${otherPulse}`,
            group: 'pulse' as const,
            report: () =>
              reportTune(tune, { ...settings, schools: { ...settings.schools, pulse: otherPulse } as const }),
          },
        ]
      : []),
  ];
}

/** The plan played that other way; null where there is none by that key any more. */
export function comparedReport(report: TuneReport, key: string): TuneReport | null {
  return (
    comparisonsOf(report)
      .find((comparison) => comparison.key === key)
      ?.report() ?? null
  );
}
