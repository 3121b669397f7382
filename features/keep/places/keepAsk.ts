import { FolderPen } from 'lucide-react';
import { navigate } from '../../thread/navigate';
import { onServer, type PagePlace } from './contract';

export const keepAsk: PagePlace<'keepAsk'> = {
  icon: FolderPen,
  async do(shot) {
    await onServer(shot);
    navigate(`/shots/${shot.id}/keep`, 'push', '?ask');
    return null;
  },
};
