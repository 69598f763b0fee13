import { writeFileSync } from 'node:fs';
import { run } from './run';

const { exitCode, stdout, stderr, outPath } = run(process.argv.slice(2));
process.stderr.write(stderr);
if (outPath && exitCode === 0) writeFileSync(outPath, stdout);
else process.stdout.write(stdout);
process.exitCode = exitCode;
