import { parseArgs } from 'node:util';
import { ability, forecast } from './ability';
import { convert } from './convert';
import { drones } from './drones';
import { fingering } from './fingering';
import { practice } from './practice';
import { readiness } from './readiness';
import { render } from './render';
import { report } from './report';
import { retune } from './retune';
import { simulate } from './simulate';
import { patterns, reportJsonSchema, tunings } from './tables';
import { take } from './take';
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
  book: { type: 'string', multiple: true },
  minutes: text,
  'a-day': text,
  stopped: { type: 'boolean' },
  to: text,
  out: text,
  truth: text,
  player: text,
  mistake: { type: 'string', multiple: true },
  noise: text,
  room: text,
  drift: text,
  seed: text,
  recording: text,
  loops: text,
  pitch: text,
} as const;

type Values = ReturnType<typeof parse>['values'];

/** What a command is called with. */
interface Call {
  readonly values: Values;
  readonly argument: string | undefined;
  readonly files: readonly string[];
  /** The one file that is asked for. */
  readonly file: () => string;
  /** What could not be read beside it is told, and no reason to give nothing. */
  readonly leftOut: string[];
}

/** Each command by its name, in the order in which they are told. */
const COMMANDS: Readonly<Record<string, (call: Call) => string | Uint8Array>> = {
  report: ({ file, values, leftOut }) => report(file(), values, leftOut),
  convert: ({ file, values, leftOut }) => convert(file(), values.to, values.tune, values.out, leftOut),
  render: ({ file, values, leftOut }) => render(file(), values, leftOut),
  drones: ({ file, values, leftOut }) => drones(file(), values, leftOut),
  fingering: ({ file, values, leftOut }) => fingering(file(), values, leftOut),
  practice: ({ file, values, leftOut }) => practice(file(), values, leftOut),
  ability: ({ files, values, leftOut }) => ability(files, values, leftOut),
  forecast: ({ file, values, leftOut }) => forecast(file(), values, leftOut),
  readiness: ({ file, files, values, leftOut }) =>
    readiness(file(), [...(values.book ?? []), ...files.slice(1)], values, leftOut),
  simulate: ({ file, values, leftOut }) => simulate(file(), values, leftOut),
  take: ({ file, values, leftOut }) => take(file(), values, leftOut),
  patterns: ({ values }) => patterns(values.json ?? false),
  tunings: ({ values }) => tunings(values.json ?? false),
  retune: ({ values }) => retune(values.from, values.to, values.json ?? false),
  schema: ({ argument }) => {
    if (argument !== 'report') throw new UsageError(`schema: expected report, got ${argument ?? 'nothing'}`);
    return reportJsonSchema();
  },
};
/** Those whose output may go to a file, and those that take several. */
const WRITES_FILES: ReadonlySet<string> = new Set(['convert', 'render', 'simulate']);
const TAKES_FILES: ReadonlySet<string> = new Set(['ability', 'readiness']);

/** Runs one command line; never throws for what a user can get wrong. */
export function run(argv: readonly string[]): Outcome {
  try {
    const { values, positionals } = parse(argv);
    const [command, ...files] = positionals;
    if (values.help || command === undefined)
      return { exitCode: values.help ? 0 : 2, stdout: values.help ? USAGE : '', stderr: values.help ? '' : USAGE };
    const made = Object.hasOwn(COMMANDS, command) ? COMMANDS[command] : undefined;
    if (files.length > 1 && !TAKES_FILES.has(command))
      throw new UsageError(`expected one argument, got also ${files.slice(1).join(' ')}`);
    if (!made) {
      const names = Object.keys(COMMANDS);
      throw new UsageError(`expected ${names.slice(0, -1).join(', ')} or ${names.at(-1)}, got ${command}`);
    }
    const [argument] = files;
    const file = () => {
      if (argument === undefined) throw new UsageError(`${command}: expected a file, or - for standard input`);
      return argument;
    };
    const leftOut: string[] = [];
    const output = made({ values, argument, files, file, leftOut });
    return {
      exitCode: 0,
      stdout: typeof output === 'string' ? output : '',
      stderr: leftOut.map((lines) => `${lines}\n`).join(''),
      ...(typeof output === 'string' ? {} : { bytes: output }),
      ...(WRITES_FILES.has(command) ? { outPath: values.out } : {}),
    };
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
