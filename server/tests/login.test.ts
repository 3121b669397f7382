import { describe, expect, test } from '@jest/globals';
import { Asked } from '../remote/login';

const wren = { username: 'Mufasa', password: 'Circle of Life', readable: false };
const header = (asked: Asked, method = 'GET', uri = '/dir/index.html') =>
  asked.header(method, uri).Authorization ?? '';

describe('Digest', () => {
  // Source: RFC 7616, 3.9.1: the challenges, the cnonce and both answers of its example.
  const said =
    'realm="http-auth@example.org", qop="auth, auth-int", nonce="7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v", opaque="FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS"';
  const challenge = (algorithm: string) => `Digest ${said}, algorithm=${algorithm}`;
  const once = () => 'f2/wE4q74E6zIJEtWaHKaf5wv/H5QzzpXusqGemxURZJ';

  test.each([
    ['SHA-256', '753927fa0e85d155564e2e272a28d1802ca10daf4496794697cf8db5856cb6c1'],
    ['MD5', '8ca523f5e9506fed4657c9700eebdbec'],
  ])('answers by %s as the standard does', (algorithm, response) => {
    const asked = new Asked(wren, false, once);
    expect(header(asked)).toBe('');
    expect(asked.learn(challenge(algorithm))).toBe(true);
    const told = header(asked);
    expect(told).toContain(`response="${response}"`);
    expect(told).toContain(`algorithm=${algorithm}`);
    expect(told).toContain('opaque="FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS"');
    expect(told).toContain('nc=00000001');
    expect(header(asked)).toContain('nc=00000002');
  });

  test('takes the stronger of two, and never the same number twice', () => {
    const asked = new Asked(wren, false);
    expect(asked.learn(`${challenge('MD5')}, ${challenge('SHA-256')}`)).toBe(true);
    expect(header(asked)).toContain('algorithm=SHA-256');
    const own = (text: string) => /cnonce="([^"]+)"/.exec(text)?.[1];
    expect(own(header(asked))).not.toBe(own(header(asked)));
  });

  test('a nonce that is too old is taken anew, a wrong password is not tried again', () => {
    const asked = new Asked(wren, false);
    expect(asked.learn('Digest realm="a", nonce="1", qop="auth"')).toBe(true);
    expect(asked.learn('Digest realm="a", nonce="2", qop="auth"')).toBe(false);
    expect(asked.learn('Digest realm="a", nonce="3", qop="auth", stale=true')).toBe(true);
    expect(header(asked)).toContain('nonce="3"');
  });
});

describe('the password itself', () => {
  const basic = 'Basic realm="Glasshouse, Digest"';

  test('goes nowhere before it is asked for, and then once', () => {
    const asked = new Asked(wren, true);
    expect(header(asked)).toBe('');
    expect(asked.learn(basic)).toBe(true);
    expect(Buffer.from(header(asked).slice(6), 'base64').toString()).toBe('Mufasa:Circle of Life');
    expect(asked.learn(basic)).toBe(false);
  });

  test('is not sent where others can read it, unless that is allowed', () => {
    expect(() => new Asked(wren, false).learn(basic)).toThrow('whoever is on the way can read it');
    expect(new Asked({ ...wren, readable: true }, false).learn(basic)).toBe(true);
    const digest = 'Digest realm="a", nonce="1", qop="auth"';
    expect(new Asked(wren, false).learn(`${basic}, ${digest}`)).toBe(true);
  });

  test('nobody who has no name is asked', () => {
    expect(new Asked({ ...wren, username: '' }, true).learn(basic)).toBe(false);
  });
});
