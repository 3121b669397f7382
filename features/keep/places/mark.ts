import { PencilLine } from 'lucide-react';
import { navigate } from '../../thread/navigate';
import type { PagePlace } from './contract';

export const mark: PagePlace<'mark'> = {
  icon: PencilLine,
  do({ id }) {
    navigate(`/shots/${id}`);
    return Promise.resolve(null);
  },
};
