/** Something that goes wrong in a way the person or program asking can understand. */
export class Fault extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    /** More to answer with, beside the error. */
    readonly more: Record<string, unknown> = {},
  ) {
    super(message);
    this.name = 'Fault';
  }
}

export const notFound = (what: string): Fault =>
  new Fault(404, 'not-found', `There is no such ${what}.`);
