import { z } from 'zod';
import { conflictSchema, errorSchema, type Shot } from '@/core/contracts/shot';

/** An answer that says no, with the server's own words; status 0 when there was no answer. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly reason?: string,
    /** The shot as it is stored, when the change was stale. */
    readonly current?: Shot,
    /** Of a certificate that a person may trust. */
    readonly fingerprint?: string,
    /** All that was answered. */
    readonly body?: unknown,
  ) {
    super(message);
    this.name = 'ApiError';
  }
}

export const noAnswer = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || error.status >= 500);

/** What to tell a person about anything that was thrown. */
export const messageOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

/** Asks the server. @throws ApiError for every answer that says no */
export async function ask(path: string, init?: RequestInit): Promise<Response> {
  let answer: Response;
  try {
    answer = await fetch(path, init);
  } catch {
    throw new ApiError(
      0,
      'no-answer',
      'Rezzik’s server does not answer. Nothing is lost; it is tried again.',
    );
  }
  if (answer.ok) return answer;
  const body: unknown = await answer.json().catch(() => null);
  const conflict = conflictSchema.safeParse(body);
  const read = errorSchema.safeParse(body);
  const reason =
    body && typeof body === 'object' && 'reason' in body ? String(body.reason) : undefined;
  throw new ApiError(
    answer.status,
    read.data?.error.code ?? 'unknown',
    read.data?.error.message ?? `The server answered ${answer.status}.`,
    reason,
    conflict.data?.current,
    z.object({ fingerprint: z.string() }).safeParse(body).data?.fingerprint,
    body,
  );
}

/** Asks, and reads what is answered. */
export async function read<T extends z.ZodType>(
  schema: T,
  path: string,
  init?: RequestInit,
): Promise<z.output<T>> {
  const answer = await ask(path, init);
  return schema.parse(await answer.json());
}

/** A request that sends JSON. */
export const sent = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});

export const shotPath = (id: string): string => `/api/shots/${id}`;
