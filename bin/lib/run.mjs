import { spawn } from 'node:child_process';
import { onStop } from './stopping.mjs';

/** Runs a program to its end. Resolves to { code, output }; output is empty when it is shown. */
export function run(program, args, options = {}) {
  const { show = false, ...rest } = options;
  return new Promise((resolve) => {
    const stdio = show ? 'inherit' : ['ignore', 'pipe', 'pipe'];
    const child = spawn(program, args, { stdio, ...rest });
    const forget = onStop(() => child.kill('SIGTERM'));
    let output = '';
    child.stdout?.on('data', (part) => (output += part));
    child.stderr?.on('data', (part) => (output += part));
    child.on('error', (error) => resolve({ code: 127, output: String(error) }));
    child.on('close', (code, signal) => {
      forget();
      resolve({ code: code ?? `signal ${signal}`, output });
    });
  });
}

/** Asks a child to end, and insists after a while. */
export function end(child, signal = 'SIGTERM', patience = 8000) {
  if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    const insist = setTimeout(() => child.kill('SIGKILL'), patience);
    child.once('close', () => {
      clearTimeout(insist);
      resolve();
    });
    child.kill(signal);
  });
}

export const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
