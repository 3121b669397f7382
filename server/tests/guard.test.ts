import { afterAll, beforeAll, expect, test } from '@jest/globals';
import * as shotsRoute from '@/app/api/shots/route';
import { env } from '../base/env';
import { at, begin, finish, request } from './setup';

beforeAll(begin);
afterAll(finish);

const ask = async (headers: Record<string, string>): Promise<number> =>
  (await shotsRoute.GET(request('/api/shots', { headers }), at({}))).status;

test('own pages and programs on this computer get in', async () => {
  const host = `127.0.0.1:${env().port}`;
  expect(await ask({})).toBe(200);
  expect(await ask({ origin: `http://${host}`, 'sec-fetch-site': 'same-origin' })).toBe(200);
  expect(await ask({ host: `localhost:${env().port}` })).toBe(200);
  expect(await ask({ 'sec-fetch-site': 'none' })).toBe(200);
});

test.each([
  ['another host name', { host: 'rebound.example' }],
  ['another port', { host: '127.0.0.1:1' }],
  ['no host', { host: '' }],
  ['another origin', { origin: 'http://garden.example' }],
  ['another port on this computer', { origin: 'http://127.0.0.1:1' }],
  ['a page without origin', { origin: 'null' }],
  ['another site', { 'sec-fetch-site': 'cross-site' }],
  ['a sibling site', { 'sec-fetch-site': 'same-site' }],
])('%s is refused', async (_, headers) => {
  expect(await ask(headers)).toBe(403);
});
