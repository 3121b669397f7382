import type { XTest } from 'x11';
import type { WheelTurn } from '@/core/contracts/display';
import { Fault } from '../base/fault';
import { allowedScreen } from './access';
import { ask, askMaybe } from './connection';

/** The buttons of a mouse that a wheel turned up, down, left and right presses (X11). */
const BUTTONS = { down: [4, 5], across: [6, 7] } as const;
/** The server moves the pointer of the screen that it is on. */
const THIS_SCREEN = 0;
const AT_ONCE = 0;

/**
 * Turns the wheel over a place of this computer's screen as a hand would (XTEST), and puts the
 * pointer back where it was.
 * @throws Fault 403, 503; 409 where the display lets nobody do so
 */
export async function turnWheel({ x, y, clicks, across }: WheelTurn): Promise<void> {
  const { X, root } = await allowedScreen();
  const test = await askMaybe<XTest>((done) => X.require('xtest', done));
  if (!test)
    throw new Fault(
      409,
      'no-wheel',
      'This display lets no program turn the wheel. Scroll by hand.',
    );
  const before = await ask<{ rootX: number; rootY: number }>((done) => X.QueryPointer(root, done));
  const button = BUTTONS[across ? 'across' : 'down'][clicks < 0 ? 0 : 1];
  test.FakeInput(test.MotionNotify, THIS_SCREEN, AT_ONCE, root, x, y);
  for (let i = 0; i < Math.abs(clicks); i += 1) {
    test.FakeInput(test.ButtonPress, button, AT_ONCE, root, 0, 0);
    test.FakeInput(test.ButtonRelease, button, AT_ONCE, root, 0, 0);
  }
  test.FakeInput(test.MotionNotify, THIS_SCREEN, AT_ONCE, root, before.rootX, before.rootY);
  // Answered after all that went before.
  await askMaybe((done) => X.QueryPointer(root, done));
}
