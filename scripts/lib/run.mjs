import { spawn } from 'node:child_process';
import { ROOT } from './root.mjs';

/** Runs a command in the project's folder with its output shown; rejects when it fails. */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) => {
      if (code === 0) resolve();
      else reject(new Error(`${command} ${args.join(' ')}: ended with ${signal ?? code}`));
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
