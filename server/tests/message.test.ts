import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { simpleParser } from 'mailparser';
import { z } from 'zod';
import { mailInputSchema } from '@/core/contracts/mail';
import { POST } from '@/app/api/shots/[id]/mail/route';
import { encodeShot } from '../keep/encode';
import { dropMessage, droppedMessage, listDropped } from '../mail/drop';
import { messageFor } from '../mail/message';
import { changeSettings } from '../settings/settings';
import { renameShot } from '../shots/store';
import { getPaintable } from '../shots/rows';
import { at, begin, finish, jsonRequest, storeTelling, telling } from './setup';

// RFC 5322, RFC 2045, RFC 2231; read by mailparser and by Python's own reader at its strictest.

let shot: string;
beforeAll(async () => {
  await begin();
  shot = await storeTelling();
});
afterAll(finish);

const READER = `
import email, email.policy, json, sys
policy = email.policy.SMTP.clone(raise_on_defect=True)
whole = email.message_from_bytes(sys.stdin.buffer.read(), policy=policy)
parts = [p for p in whole.walk() if not p.is_multipart()]
print(json.dumps({
  'from': whole['from'],
  'subject': whole['subject'],
  'text': parts[0].get_content(),
  'names': [[p.get_filename(), p.get_param('name')] for p in parts[1:]],
  'defects': [str(d) for p in whole.walk() for d in p.defects],
}))`;
const readSchema = z.object({
  from: z.string().nullable(),
  subject: z.string(),
  text: z.string(),
  names: z.array(z.tuple([z.string().nullable(), z.string().nullable()])),
  defects: z.array(z.string()),
});
const strictly = (message: Buffer) =>
  readSchema.parse(
    JSON.parse(execFileSync('python3', ['-c', READER], { input: message, encoding: 'utf8' })),
  );

test('a message has its headers, words and the very picture', async () => {
  const input = mailInputSchema.parse({
    to: 'wren@fernhollow.example',
    subject: 'Grüße – beds',
    text: 'Look.',
  });
  const { bytes } = await messageFor(shot, input);
  const read = await simpleParser(bytes);
  expect(read.subject).toBe('Grüße – beds');
  expect(read.text).toContain(telling.description);
  const [attached] = read.attachments;
  expect(attached).toMatchObject({ filename: 'Beds.png', contentType: 'image/png' });
  const picture = await encodeShot(await getPaintable(shot), { format: 'png' });
  expect(attached?.content.equals(Buffer.from(picture.bytes))).toBe(true);
});

test('nothing in it is against the standard, whatever the shot is called', async () => {
  const title = `Störung “7” ${'日本 with a long name '.repeat(6)}; x="y"`;
  await renameShot(shot, title);
  const text = `One\nTwo ${'and more words than go into a line '.repeat(5)}\r\nThree é`;
  const { bytes, name } = await messageFor(shot, mailInputSchema.parse({ text }));
  expect(bytes.toString('latin1')).not.toMatch(/(^|[^\r])\n|\r(?!\n)/);
  const read = strictly(bytes);
  expect(read.defects).toEqual([]);
  expect(read.subject).toBe(title);
  expect(read.text.replaceAll('\r\n', '\n')).toContain(text.replaceAll('\r\n', '\n'));
  const [[file, kind] = []] = read.names;
  expect(file).toMatch(/^Störung “7” 日本 with a long name .*\.png$/);
  expect(kind).toBeNull();
  expect(`${name.slice(0, -4)}.png`).toBe(file);
  await renameShot(shot, 'Beds');
});

test('it is from whom Setup says, else from whom the mail program says', async () => {
  const from = async () => strictly((await messageFor(shot, mailInputSchema.parse({}))).bytes).from;
  expect(await from()).toBeNull();
  await changeSettings({ mailFrom: 'wren@fernhollow.example' });
  expect(await from()).toBe('wren@fernhollow.example');
  await changeSettings({ mailFrom: '' });
});

test('its file is called as the shot is', async () => {
  const answer = await POST(jsonRequest(`/api/shots/${shot}/mail`, 'POST', {}), at({ id: shot }));
  expect(answer.headers.get('content-disposition')).toBe(
    `attachment; filename="Beds.eml"; filename*=UTF-8''Beds.eml`,
  );
});

test('the mail drop holds messages that went nowhere', async () => {
  const { bytes } = await messageFor(shot, mailInputSchema.parse({ drop: true }));
  const name = await dropMessage(shot, bytes);
  expect((await listDropped())[0]).toMatchObject({ name, subject: 'Beds' });
  expect((await droppedMessage(name)).length).toBeGreaterThan(1000);
  await expect(droppedMessage('../../secret.eml')).rejects.toMatchObject({ status: 404 });
});
