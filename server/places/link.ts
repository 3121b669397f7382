import { linkInputSchema } from '@/core/contracts/link';
import { addressOf } from '@/core/places/link';
import { makeLink } from '../links/links';
import type { ServerPlace } from './contract';

export const link: ServerPlace<'link'> = async ({ id }) => ({
  address: addressOf(await makeLink(id, linkInputSchema.parse({}))),
  copied: false,
});
