import { PATTERNS, applyPattern, findPattern } from '#core/bowing';
import { type TuneReport, reportTune } from '#core/report';
import { LILTS, findLilt } from '#core/tempo';

/** Another way to play a passage, heard by turns with the plan. */
export interface Comparison {
  readonly key: string;
  readonly words: string;
  readonly group: 'lilt' | 'bowing' | 'pulse';
}

/** What a plan can be compared with: other lilts, patterns of bowing, the other school of pulses. */
export function comparisonsOf({ settings, tune }: TuneReport): Comparison[] {
  const hasPulses = tune.parts.some(({ events }) =>
    events.some((event) => event.kind === 'note' && event.marks?.includes('pulse')),
  );
  return [
    ...LILTS.filter(({ name }) => name !== settings.lilt.name).map(({ name }): Comparison => ({
      key: `lilt:${name}`,
      words: name === 'straight' ? 'played straight' : `a lilt that is ${name}`,
      group: 'lilt',
    })),
    ...PATTERNS.map(({ name }): Comparison => ({
      key: `pattern:${name}`,
      words: name.replaceAll('-', ' '),
      group: 'bowing',
    })),
    ...(hasPulses
      ? [
          {
            key: 'pulse:other',
            words: settings.schools.pulse === 'speed' ? 'pulses by weight' : 'pulses by speed',
            group: 'pulse' as const,
          },
        ]
      : []),
  ];
}

/** The plan played that other way; null where there is none by that key any more. */
export function comparedReport(report: TuneReport, key: string): TuneReport | null {
  const { tune, settings } = report;
  const [kind, name = ''] = key.split(':');
  if (kind === 'lilt') {
    const lilt = findLilt(name);
    return lilt && reportTune(tune, { ...settings, lilt });
  }
  if (kind === 'pattern') {
    const pattern = findPattern(name);
    return pattern && reportTune(applyPattern(tune, pattern), settings);
  }
  if (kind !== 'pulse') return null;
  const pulse = settings.schools.pulse === 'speed' ? 'weight' : 'speed';
  return reportTune(tune, { ...settings, schools: { ...settings.schools, pulse } });
}
