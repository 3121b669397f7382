import { sendTo } from '../remote/sendings';
import type { ServerPlace } from './contract';

export const send: ServerPlace<'send'> = async ({ id }, { remoteId }) => ({
  ...(await sendTo(id, remoteId)),
  copied: false,
});
