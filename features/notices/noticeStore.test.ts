import { expect, test } from '@jest/globals';
import { amend, dropOld, notify, useNotices } from './noticeStore';

const keys = () => useNotices.getState().notices.map((n) => n.key);

test('an answer stays for at least eight seconds, longer once there is more to say; trouble stays', () => {
  const before = Date.now();
  notify({ key: 'good', tone: 'good', title: 'Pond edge' });
  notify({ key: 'bad', tone: 'bad', title: 'Not kept' });
  const after = Date.now();
  dropOld(before + 8000);
  expect(keys()).toEqual(['good', 'bad']);
  amend('good', { until: after + 12_000 });
  dropOld(after + 11_000);
  expect(keys()).toEqual(['good', 'bad']);
  dropOld(after + 13_000);
  expect(keys()).toEqual(['bad']);
});
