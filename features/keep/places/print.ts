import { Printer } from 'lucide-react';
import { navigate } from '../../thread/navigate';
import { onServer, type PagePlace } from './contract';

export const print: PagePlace<'print'> = {
  icon: Printer,
  async do(shot) {
    await onServer(shot);
    navigate(`/print/${shot.id}`);
    return null;
  },
};
