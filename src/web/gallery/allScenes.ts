import { scenes as BowSheet } from '../bench/BowSheet.scenes';
import { scenes as KeysSheet } from '../bench/KeysSheet.scenes';
import { scenes as PatternSheet } from '../bench/PatternSheet.scenes';
import { scenes as BeginSheet } from '../book/BeginSheet.scenes';
import { scenes as FilesSheet } from '../book/FilesSheet.scenes';
import { scenes as ImportSheet } from '../book/ImportSheet.scenes';
import { scenes as TuningsSheet } from '../crossTuning/TuningsSheet.scenes';
import { scenes as OwnLiltSheet } from '../dance/OwnLiltSheet.scenes';
import { scenes as DronesSheet } from '../drones/DronesSheet.scenes';
import { scenes as FingeringSheet } from '../fingering/FingeringSheet.scenes';
import { scenes as HelpSheet } from '../help/HelpSheet.scenes';
import { scenes as ConflictSheet } from '../openTune/ConflictSheet.scenes';
import { scenes as OrnamentsSheet } from '../ornaments/OrnamentsSheet.scenes';
import { scenes as FiddleSheet } from '../pegs/FiddleSheet.scenes';
import { scenes as SoundFilesSheet } from '../player/SoundFilesSheet.scenes';
import { scenes as PainSheet } from '../practice/PainSheet.scenes';
import { scenes as BowingsSheet } from '../search/BowingsSheet.scenes';
import { scenes as MeasureSheet } from '../settings/MeasureSheet.scenes';
import { scenes as TakeSheet } from '../takes/TakeSheet.scenes';
import type { Scenes } from '../testing/scene';
import { scenes as BarSheet } from '../tune/BarSheet.scenes';
import { scenes as FormSheet } from '../tune/FormSheet.scenes';
import { scenes as LandmarksSheet } from '../tune/LandmarksSheet.scenes';
import { scenes as NoteSheet } from '../tune/NoteSheet.scenes';
import { scenes as TuneSheet } from '../tune/TuneSheet.scenes';
import { scenes as TwinsSheet } from '../twins/TwinsSheet.scenes';
import { scenes as VersionsSheet } from '../versions/VersionsSheet.scenes';

/** The scenes of every sheet: a new one is a file beside it and a line here. */
export const ALL_SCENES: Readonly<Record<string, Scenes>> = {
  BowSheet,
  HelpSheet,
  KeysSheet,
  PatternSheet,
  BeginSheet,
  FilesSheet,
  ImportSheet,
  TuningsSheet,
  OwnLiltSheet,
  DronesSheet,
  FingeringSheet,
  ConflictSheet,
  OrnamentsSheet,
  FiddleSheet,
  SoundFilesSheet,
  PainSheet,
  BowingsSheet,
  MeasureSheet,
  TakeSheet,
  BarSheet,
  FormSheet,
  NoteSheet,
  LandmarksSheet,
  TuneSheet,
  TwinsSheet,
  VersionsSheet,
};
