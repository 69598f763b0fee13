import { createHash } from 'node:crypto';
import { NO_ABILITY, type PlayerAbility } from '#contract/ability';
import { playerSettings } from '#contract/settings';
import type { PlayerSettings } from '#core/report';
import { withLock } from '../advisoryLock';
import { countingKey } from '../counting/figures';
import type { Database, Queryable } from '../db';
import { isOutage } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { findSettings } from '../settings/queries';
import type { JudgedStretch } from './learnPlayer';
import {
  countTunesToOwn,
  findAbility,
  findStaleTune,
  keepAbility,
  keepOwnFigures,
  keepStretches,
  listJudgedStretches,
  listTellingAttempts,
  listTunesToOwn,
  logVersion,
} from './queries';

/** Only one process learns at a time. */
const ABILITY_LOCK = 4_710_004;
/** Tunes whose own ceilings are counted and kept together. */
const BATCH = 100;
const DAY_MS = 86_400_000;

export interface CountAbilityDeps {
  readonly db: Database;
  readonly jobs: Pick<Jobs, 'judgeStretches' | 'learnPlayer' | 'ownFigures'>;
  readonly now: () => Date;
  readonly isStopping: () => boolean;
  /** Tells of a tune whose stretches could not be judged. */
  readonly onFailed: (id: string, error: unknown) => void;
}

/**
 * Learns what the log says of the player, and counts what follows for each tune, until all is of the log, the plans and the limits
 * as they are: stretches of the log that their plan has changed, the ability, own ceilings. What is left stands in the database,
 * so it may be ended at any time and begun again by any process; where another one is at it, that one looks once more.
 * Returns how many tunes were counted here.
 */
export async function countAbility(deps: CountAbilityDeps): Promise<number> {
  let counted = 0;
  for (;;) {
    const round = await withLock(deps.db, ABILITY_LOCK, () => countAll(deps));
    if (round === null) return counted;
    counted += round;
    if (deps.isStopping() || (await abilityState(deps.db, deps.now())).isDone) return counted;
    // Nothing could be done in this round: what is left waits for the next time.
    if (round === 0) return counted;
  }
}

async function countAll(deps: CountAbilityDeps): Promise<number> {
  const { db, jobs, now, isStopping } = deps;
  const settings = playerSettings((await findSettings(db)).settings);
  const countedBy = countingKey(settings);
  await judgeStale(deps, settings, countedBy);
  if (isStopping()) return 0;
  const key = await abilityKey(db, countedBy, now());
  const kept = await findAbility(db);
  let { ability } = kept;
  let learnt = 0;
  if (kept.key !== key) {
    ability = await learn(db, jobs, settings, now());
    await keepAbility(db, key, ability);
    learnt = 1;
  }
  let counted = 0;
  while (!isStopping()) {
    const tunes = await listTunesToOwn(db, key, countedBy, BATCH);
    if (tunes.length === 0) break;
    const figures = await jobs.ownFigures(tunes, ability, settings.limits);
    await keepOwnFigures(db, key, tunes, figures);
    counted += tunes.length;
  }
  return Math.max(counted, learnt);
}

/**
 * Judges stretches of the log anew where their plan, the rules or the limits changed, a tune at a time. Those of a tune that cannot
 * be judged say nothing until it is changed.
 */
async function judgeStale({ db, jobs, isStopping, onFailed }: CountAbilityDeps, settings: PlayerSettings, key: string) {
  while (!isStopping()) {
    const tune = await findStaleTune(db, key);
    if (!tune) return;
    const judged = await jobs.judgeStretches(tune.document, tune.stretches, settings).catch((error: unknown) => {
      if (isOutage(error)) throw error;
      onFailed(tune.id, error);
      return tune.stretches.map((): JudgedStretch => ({ bpm: 1, margins: null, skills: null }));
    });
    await keepStretches(db, tune, judged);
  }
}

async function learn(
  db: Queryable,
  jobs: CountAbilityDeps['jobs'],
  settings: PlayerSettings,
  now: Date,
): Promise<PlayerAbility> {
  const attempts = await listTellingAttempts(db);
  if (attempts.length === 0) return NO_ABILITY;
  const stretches = await listJudgedStretches(db);
  const places = new Map([...stretches.keys()].map((name, i) => [name, i]));
  const rows = attempts.map(({ stretch, at, bpm, clean, shows }) => ({
    stretch: places.get(stretch)!,
    daysAgo: (now.getTime() - at.getTime()) / DAY_MS,
    bpm,
    clean,
    shows,
  }));
  const learnt = await jobs.learnPlayer([...stretches.values()], rows, settings.limits);
  return { ...learnt, since: attempts[attempts.length - 1]!.at.toISOString().slice(0, 10) };
}

/** Of which figures, log and day an ability is: attempts count less by the day. */
async function abilityKey(db: Queryable, countedBy: string, now: Date): Promise<string> {
  const parts = [countedBy, await logVersion(db), now.toISOString().slice(0, 10)];
  return createHash('sha256').update(parts.join('|')).digest('hex').slice(0, 16);
}

/** How far it is: the ability that is kept, whether it is of the log as it is, and how many tunes are left. */
export async function abilityState(
  db: Database,
  now: Date,
): Promise<{
  readonly ability: PlayerAbility;
  readonly isCurrent: boolean;
  readonly left: number;
  readonly isDone: boolean;
}> {
  const countedBy = countingKey(playerSettings((await findSettings(db)).settings));
  const key = await abilityKey(db, countedBy, now);
  const { key: known, ability } = await findAbility(db);
  const isCurrent = known === key && (await findStaleTune(db, countedBy)) === null;
  const left = await countTunesToOwn(db, known ?? '', countedBy);
  return { ability, isCurrent, left, isDone: isCurrent && left === 0 };
}
