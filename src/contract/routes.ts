import { abilityRoutes } from './ability';
import { bookRoutes } from './book';
import { backupRoutes, exportRoutes } from './exports';
import { handoutRoutes } from './handout';
import { healthRoutes } from './health';
import { importRoutes, likenessRoutes } from './imports';
import { logRoutes } from './log';
import { pegsRoutes } from './pegs';
import { readinessRoutes } from './readiness';
import { revisionRoutes } from './revisions';
import type { Route } from './route';
import { setsRoutes } from './sets';
import { settingsRoutes } from './settings';
import { tuneRoutes } from './tunes';
import { versionRoutes } from './versions';

/** Every route of the server: nothing else is answered under `/api`. */
export const ROUTES: Readonly<Record<string, Route>> = {
  ...tuneRoutes,
  ...versionRoutes,
  ...revisionRoutes,
  ...bookRoutes,
  ...importRoutes,
  ...likenessRoutes,
  ...exportRoutes,
  ...backupRoutes,
  ...handoutRoutes,
  ...settingsRoutes,
  ...pegsRoutes,
  ...setsRoutes,
  ...logRoutes,
  ...abilityRoutes,
  ...readinessRoutes,
  ...healthRoutes,
};
