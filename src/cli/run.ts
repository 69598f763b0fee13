import { parseArgs } from 'node:util';
import { convert } from './convert';
import { drones } from './drones';
import { fingering } from './fingering';
import { practice } from './practice';
import { render } from './render';
import { report } from './report';
import { retune } from './retune';
import { patterns, reportJsonSchema, tunings } from './tables';
import { InputError, USAGE, UsageError } from './usage';

export interface Outcome {
  readonly exitCode: 0 | 1 | 2;
  readonly stdout: string;
  readonly stderr: string;
  /** Where stdout goes instead of the terminal. */
  readonly outPath?: string;
  /** What goes there where it is no text. */
  readonly bytes?: Uint8Array;
}

const text = { type: 'string' } as const;
const OPTIONS = {
  json: { type: 'boolean' },
  help: { type: 'boolean' },
  tune: text,
  tempo: text,
  pattern: text,
  start: text,
  tuning: text,
  lilt: text,
  fingers: text,
  limits: text,
  instrument: text,
  schools: text,
  optimise: text,
  from: text,
  layers: text,
  wish: text,
  bite: text,
  order: text,
  log: text,
  minutes: text,
  stopped: { type: 'boolean' },
  to: text,
  out: text,
} as const;

/** Runs one command line; never throws for what a user can get wrong. */
export function run(argv: readonly string[]): Outcome {
  try {
    const { values, positionals } = parse(argv);
    if (values.help || positionals.length === 0)
      return { exitCode: values.help ? 0 : 2, stdout: values.help ? USAGE : '', stderr: values.help ? '' : USAGE };
    const [command, argument, ...more] = positionals;
    if (more.length > 0) throw new UsageError(`expected one argument, got also ${more.join(' ')}`);
    const file = () => {
      if (argument === undefined) throw new UsageError(`${command}: expected a file, or - for standard input`);
      return argument;
    };
    const leftOut: string[] = [];
    /** What could not be read beside it is told, and no reason to give nothing. */
    const done = (made: string | Uint8Array): Outcome => ({
      exitCode: 0,
      stdout: typeof made === 'string' ? made : '',
      stderr: leftOut.map((lines) => `${lines}\n`).join(''),
      ...(typeof made === 'string' ? {} : { bytes: made }),
    });
    switch (command) {
      case 'report':
        return done(report(file(), values, leftOut));
      case 'convert':
        return { ...done(convert(file(), values.to, values.tune, values.out, leftOut)), outPath: values.out };
      case 'render':
        return { ...done(render(file(), values, leftOut)), outPath: values.out };
      case 'drones':
        return done(drones(file(), values, leftOut));
      case 'fingering':
        return done(fingering(file(), values, leftOut));
      case 'practice':
        return done(practice(file(), values, leftOut));
      case 'patterns':
        return done(patterns(values.json ?? false));
      case 'tunings':
        return done(tunings(values.json ?? false));
      case 'retune':
        return done(retune(values.from, values.to, values.json ?? false));
      case 'schema':
        if (argument !== 'report') throw new UsageError(`schema: expected report, got ${argument ?? 'nothing'}`);
        return done(reportJsonSchema());
      default:
        throw new UsageError(
          `expected report, convert, render, drones, fingering, practice, patterns, tunings, retune or schema, got ${command}`,
        );
    }
  } catch (error) {
    if (error instanceof UsageError) return { exitCode: 2, stdout: '', stderr: `${error.message}\n` };
    if (error instanceof InputError) return { exitCode: 1, stdout: '', stderr: `${error.message}\n` };
    throw error;
  }
}

function parse(argv: readonly string[]) {
  try {
    return parseArgs({ args: [...argv], options: OPTIONS, allowPositionals: true });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}
