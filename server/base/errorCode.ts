/** The system's code of a failed call (ENOENT …); empty when there is none. */
export const errorCode = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
