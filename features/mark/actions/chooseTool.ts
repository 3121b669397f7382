import { applyCrop, startCrop } from '../fit/crop';
import type { Tool } from '../session/tool';
import { session, update } from '../session/session';
import { isMarkTool } from '../panels/tools';
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
    cutting: false,
    camera: cropping ? { ...session().camera, mode: 'fit' } : session().camera,
  });
  if (tool === 'crop') startCrop();
}
