import { writeFileSync } from 'node:fs';
import { run } from './run';

const { exitCode, stdout, bytes, stderr, outPath } = run(process.argv.slice(2));
process.stderr.write(stderr);
process.exitCode = exitCode;
if (outPath && exitCode === 0) {
  try {
    writeFileSync(outPath, bytes ?? stdout);
  } catch (error) {
    process.stderr.write(`${outPath}: cannot be written: ${(error as Error).message}\n`);
    process.exitCode = 1;
  }
} else process.stdout.write(stdout);
