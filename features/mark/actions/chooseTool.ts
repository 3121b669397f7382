import { isSeenNow } from '../session/moment';
import { marks, select } from '../session/select';
import { applyCrop, startCrop } from '../fit/crop';
import type { Tool } from '../session/tool';
import { session, update } from '../session/session';
import { isMarkTool } from '../session/tools';
import { rememberTool } from '../session/lastTool';

export function chooseTool(tool: Tool): void {
  const { cropping } = session();
  if (cropping && tool === 'crop') return;
  if (cropping) applyCrop();
  const { tool: old } = session();
  if (isMarkTool(old)) rememberTool(old);
  update({
    tool,
    live: [],
    editing: null,
    selection: tool === 'grab' ? session().selection : [],
    corners: [],
    chosen: true,
    cropping: null,
    cropSeen: null,
    squaring: null,
    before: false,
    bringing: null,
    cutting: false,
    camera: cropping ? { ...session().camera, mode: 'fit' } : session().camera,
  });
  if (tool === 'crop') startCrop();
}

/** Everything that can be taken hold of, by Grab. */
export function selectAll(): void {
  chooseTool('grab');
  select(marks().flatMap((mark) => (mark.off || mark.locked || !isSeenNow(mark) ? [] : [mark.id])));
}
