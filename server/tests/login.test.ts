import { describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { Asked } from '../remote/login';

const wren = { username: 'Mufasa', password: 'Circle of Life', readable: false };
const header = (asked: Asked, method = 'GET', uri = '/dir/index.html') =>
  asked.header(method, uri).Authorization ?? '';

describe('Digest', () => {
  // Source: RFC 7616, 3.9.1: the challenges of its example, with both algorithms.
  const both =
    'Digest realm="http-auth@example.org", qop="auth, auth-int", algorithm=SHA-256, nonce="7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v", opaque="FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS", ' +
    'Digest realm="http-auth@example.org", qop="auth, auth-int", algorithm=MD5, nonce="7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v", opaque="FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS"';

  test('answers with the stronger algorithm, as the standard reckons it', () => {
    const asked = new Asked(wren, false);
    expect(header(asked)).toBe('');
    expect(asked.learn(both)).toBe(true);
    const told = header(asked);
    expect(told).toContain('algorithm=SHA-256');
    expect(told).toContain('opaque="FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS"');
    expect(told).toContain('nc=00000001');
    expect(header(asked)).toContain('nc=00000002');
    const sha = (text: string) => createHash('sha256').update(text).digest('hex');
    const own = /cnonce="([^"]+)"/.exec(told)?.[1] ?? '';
    const secret = sha('Mufasa:http-auth@example.org:Circle of Life');
    // The two hashes that the standard prints in its example of SHA-256 are made of these.
    expect(secret).toBe('7987c64c30e25f1b74be53f966b49b90f2808aa92faf9a00262392d7b4794232');
    expect(sha('GET:/dir/index.html')).toBe(
      '9a3fdae9a622fe8de177c24fa9c070f2b181ec85e15dcbdc32e10c82ad450b04',
    );
    const nonce = '7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v';
    const wanted = sha(
      [secret, nonce, '00000001', own, 'auth', sha('GET:/dir/index.html')].join(':'),
    );
    expect(told).toContain(`response="${wanted}"`);
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
