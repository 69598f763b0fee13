import { spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { ROOT } from './root.mjs';

/** Runs a command in the project's folder with its output shown; rejects when it fails. */
export function run(command, args, options = {}) {
  return ending(spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options }), `${command} ${args.join(' ')}`);
}

/** The same with each line of its output headed by a name, for commands that run side by side. */
export function runNamed(name, command, args, options = {}) {
  const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
  for (const stream of [child.stdout, child.stderr])
    createInterface({ input: stream }).on('line', (line) => console.log(`${name.padEnd(8)} │ ${line}`));
  return ending(child, name);
}

function ending(child, words) {
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code, signal) => {
      if (code === 0) resolve();
      else reject(new Error(`${words}: ended with ${signal ?? code}`));
    });
  });
}

/** Runs a command and gives its exit code and output. */
export function capture(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    child.stdout.on('data', (data) => (output += data));
    child.stderr.on('data', (data) => (output += data));
    child.on('error', (error) => resolve({ code: -1, output: error.message }));
    child.on('exit', (code) => resolve({ code: code ?? -1, output }));
  });
}
