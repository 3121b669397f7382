import { describe, expect, test } from '@jest/globals';
import { httpDisposition, nameInDisposition } from './disposition';

describe('over HTTP', () => {
  // Source: RFC 6266, §5, and RFC 8187, §3.2.2, which has the pound and euro signs.
  test('in plain letters and whole', () => {
    expect(httpDisposition('inline', '£ and € rates.png')).toBe(
      `inline; filename="_ and _ rates.png"; filename*=UTF-8''%C2%A3%20and%20%E2%82%AC%20rates.png`,
    );
  });

  test('nothing in a name ends the header', () => {
    expect(httpDisposition('attachment', 'a"; x=\r\n\\%.png')).toBe(
      `attachment; filename="a_; x=____.png"; filename*=UTF-8''a%22%3B%20x%3D%0D%0A%5C%25.png`,
    );
  });

  test('is read back', () => {
    const name = 'Störung; “7”.eml';
    expect(nameInDisposition(httpDisposition('attachment', name))).toBe(name);
    expect(nameInDisposition('attachment; filename="a.eml"')).toBeNull();
  });
});
