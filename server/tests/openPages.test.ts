import { expect, test } from '@jest/globals';
import { pageStream, tellNewestPage, tellPages } from '../display/openPages';

const taken = { routine: 'Screen 3', lines: ['Taken'] };

/** Lets go of a stream in all the ways that a server may, and in either order. */
const goings = {
  'cancelled, then told so': async (stream: ReadableStream, gone: AbortController) => {
    await stream.cancel();
    gone.abort();
  },
  'told so, then cancelled': async (stream: ReadableStream, gone: AbortController) => {
    gone.abort();
    await stream.cancel();
  },
  'cancelled alone': (stream: ReadableStream) => stream.cancel(),
};

test.each(Object.entries(goings))(
  'of a page that went away (%s) nothing is left',
  async (_, go) => {
    const gone = new AbortController();
    const stream = pageStream(gone.signal);
    expect(tellNewestPage(taken)).toBe(true);
    await go(stream, gone);
    expect(tellNewestPage(taken)).toBe(false);
    expect(() => tellPages(taken)).not.toThrow();
    // What a listener throws would end the process now.
    await new Promise((resolve) => setImmediate(resolve));
  },
);
