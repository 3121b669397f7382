import type { Camera } from './camera';
import { part } from './part';

/** How the shot is looked at: changes with the wheel and the window. */
export interface ViewState {
  camera: Camera;
}

export const viewAtFirst: ViewState = { camera: { mode: 'start', scale: 1, x: 0, y: 0 } };

export const viewPart = part<ViewState>(Object.keys(viewAtFirst));
export const useView = viewPart.use;
