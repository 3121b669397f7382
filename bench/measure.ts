import { appendFileSync } from 'node:fs';

export const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
};

/** Milliseconds that a piece of work takes. */
export async function time(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** Adds a line to what `npm run bench` prints. */
export function report(what: string, figure: string, mark = ''): void {
  const line = `${what.padEnd(62)} ${figure.padStart(16)}   ${mark}`;
  appendFileSync(process.env.REZZIK_BENCH ?? '/dev/stdout', `${line}\n`);
}

export const ms = (value: number): string => `${value.toFixed(1)} ms`;
