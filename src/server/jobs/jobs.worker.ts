import { AppError, toAppError } from '../errors';
import type { JobDone } from './jobPool';
import { JOBS, type SentJob } from './jobs';

/** Works on one job. What was refused in words goes back as such: an error that crosses threads is no longer of its class. */
export default async function work({ name, args }: SentJob): Promise<JobDone> {
  try {
    return { value: await (JOBS[name] as (...args: readonly unknown[]) => unknown)(...args) };
  } catch (error) {
    const refused: AppError = toAppError(error);
    if (refused.code === 'internal') throw error;
    return { refused: { code: refused.code, details: refused.details } };
  }
}
