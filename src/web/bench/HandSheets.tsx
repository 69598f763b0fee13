import type { TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { useAppSelector } from '../app/store';
import { TuningsSheet } from '../crossTuning/TuningsSheet';
import { useKnownTunings } from '../crossTuning/useKnownTunings';
import { DronesSheet } from '../drones/DronesSheet';
import { FingeringSheet } from '../fingering/FingeringSheet';
import { OrnamentsSheet } from '../ornaments/OrnamentsSheet';
import { selectSettings } from '../settings/selectSettings';

/** Sheets of what both hands do beside the bowing, with the key that opens each. */
export const HAND_KEYS: Readonly<Record<string, HandSheet>> = {
  g: 'fingering',
  c: 'drones',
  a: 'ornaments',
  i: 'tunings',
};
export type HandSheet = 'fingering' | 'drones' | 'ornaments' | 'tunings';

export function isHandSheet(sheet: string | null): sheet is HandSheet {
  return sheet === 'fingering' || sheet === 'drones' || sheet === 'ornaments' || sheet === 'tunings';
}

interface HandSheetsProps {
  readonly sheet: HandSheet;
  readonly report: TuneReport;
  readonly ids: readonly string[];
  readonly where: string;
  readonly part: string;
  readonly onApply: (tune: Tune, label: string) => void;
  readonly onClose: () => void;
}

export function HandSheets({ sheet, ...props }: HandSheetsProps) {
  const { settings } = useAppSelector(selectSettings);
  const tunings = useKnownTunings();
  switch (sheet) {
    case 'fingering':
      return <FingeringSheet {...props} leftHanded={settings.leftHanded} />;
    case 'drones':
      return <DronesSheet {...props} ear={settings.ear} />;
    case 'ornaments':
      return <OrnamentsSheet {...props} words={settings.words} />;
    case 'tunings':
      return <TuningsSheet {...props} tunings={tunings} />;
  }
}
