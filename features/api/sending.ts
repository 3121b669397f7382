import type { z } from 'zod';
import { phoneSchema } from '@/core/contracts/phone';
import { linkSchema, linksSchema, type Link, type LinkInput } from '@/core/contracts/link';
import { nameInDisposition } from '@/core/naming/disposition';
import { mailDropSchema, type Dropped, type MailInput } from '@/core/contracts/mail';
import {
  type remotePatchSchema,
  remoteSchema,
  remotesSchema,
  sendingSchema,
  sendingsSchema,
  type Remote,
  type RemoteInput,
  type Sending,
} from '@/core/contracts/remote';
import { ask, read, sent, shotPath } from './ask';

/** What is asked of the server about links, phones, messages and remote folders. */
export const sendingApi = {
  links: async (id: string): Promise<Link[]> =>
    (await read(linksSchema, `${shotPath(id)}/links`)).links,
  makeLink: (id: string, input: LinkInput): Promise<Link> =>
    read(linkSchema, `${shotPath(id)}/links`, sent('POST', input)),
  openedLinks: async (): Promise<Link[]> => (await read(linksSchema, '/api/links')).links,
  takeBack: (id: string) => ask(`/api/links/${id}`, { method: 'DELETE' }),
  phone: () => read(phoneSchema, '/api/phone'),
  makePhoneAddress: () => read(phoneSchema, '/api/phone', sent('POST', {})),
  withdrawPhoneAddress: (id: string) => ask(`/api/phone/${id}`, { method: 'DELETE' }),
  /** A message as a file, with what it is called. */
  mail: async (id: string, input: MailInput): Promise<{ blob: Blob; name: string }> => {
    const answer = await ask(`${shotPath(id)}/mail`, sent('POST', input));
    const name = nameInDisposition(answer.headers.get('content-disposition') ?? '');
    return { blob: await answer.blob(), name: name ?? 'picture.eml' };
  },
  /** Into the mail drop of this computer. */
  dropMail: (id: string, input: MailInput) =>
    ask(`${shotPath(id)}/mail`, sent('POST', { ...input, drop: true })),
  mailDrop: async (): Promise<Dropped[]> => (await read(mailDropSchema, '/api/mail-drop')).messages,
  remotes: async (): Promise<Remote[]> => (await read(remotesSchema, '/api/remotes')).remotes,
  addRemote: (input: RemoteInput): Promise<Remote> =>
    read(remoteSchema, '/api/remotes', sent('POST', input)),
  practiceRemote: (): Promise<Remote> =>
    read(remoteSchema, '/api/remotes/practice', { method: 'POST' }),
  changeRemote: (id: string, patch: z.input<typeof remotePatchSchema>): Promise<Remote> =>
    read(remoteSchema, `/api/remotes/${id}`, sent('PATCH', patch)),
  removeRemote: (id: string) => ask(`/api/remotes/${id}`, { method: 'DELETE' }),
  send: (id: string, remoteId: string): Promise<Sending> =>
    read(sendingSchema, `${shotPath(id)}/sendings`, sent('POST', { remoteId })),
  waitingSendings: async (): Promise<Sending[]> =>
    (await read(sendingsSchema, '/api/sendings')).sendings,
  sendAgain: (id: string): Promise<Sending> =>
    read(sendingSchema, `/api/sendings/${id}`, { method: 'POST' }),
  stopSending: (id: string) =>
    read(sendingSchema, `/api/sendings/${id}`, sent('PATCH', { state: 'stopped' })),
  dropSending: (id: string) => ask(`/api/sendings/${id}`, { method: 'DELETE' }),
};
