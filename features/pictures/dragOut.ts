import type { DragEvent } from 'react';

interface Dragged {
  type: string;
  /** As the file will be called. */
  name: string;
  url: string;
}

/** Dragged out of the window it is a file of that name. */
export function dragOut({ dataTransfer }: DragEvent, { type, name, url }: Dragged): void {
  dataTransfer.effectAllowed = 'copy';
  dataTransfer.setData('DownloadURL', `${type}:${name}:${url}`);
  dataTransfer.setData('text/uri-list', url);
}
