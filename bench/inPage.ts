import type { WebDriver } from 'selenium-webdriver';
import { z } from 'zod';
import { median, ms, report } from './measure';

/** Run in the page: events one after the other, each timed until what it asked for is painted. */
export const timed = (begin: string, each: string, end: string, count: number) => `
  const done = arguments[0];
  const stage = document.querySelector('[data-testid="stage"]');
  const box = stage.getBoundingClientRect();
  const send = (type, x, y) => stage.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, button: type === 'pointermove' ? -1 : 0, buttons: type === 'pointerup' ? 0 : 1, clientX: box.left + x, clientY: box.top + y }));
  const wheel = (more) => stage.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: box.left + 400, clientY: box.top + 300, ...more }));
  stage.setPointerCapture = () => undefined;
  const frames = []; const tasks = [];
  const watch = new PerformanceObserver((list) => list.getEntries().forEach((e) => tasks.push(e.duration)));
  watch.observe({ type: 'longtask' });
  let i = 0;
  ${begin}
  const step = () => {
    if (i === ${count}) {
      ${end}
      // Long tasks are told of a little later; those of letting go are not among them.
      watch.takeRecords().forEach((e) => tasks.push(e.duration));
      watch.disconnect();
      return done({ frames, tasks });
    }
    const start = performance.now();
    ${each}
    const sent = performance.now() - start;
    // The library paints in the next animation frame. What was asked for before runs before,
    // so the second callback stands behind the paint.
    let begun = 0;
    requestAnimationFrame(() => {
      begun = performance.now();
      setTimeout(() => { frames.push(sent + performance.now() - begun); i += 1; step(); });
    });
  };
  step();`;

const answer = z.object({ frames: z.array(z.number()), tasks: z.array(z.number()) });

/** Runs a script of `timed` in the page and reports what it found. */
export async function measuredIn(
  driver: WebDriver,
  what: string,
  script: string,
  mark = '',
): Promise<void> {
  const { frames, tasks } = answer.parse(await driver.executeAsyncScript(script));
  report(`${what}: input to painted (median)`, ms(median(frames)), mark);
  report('… longest task meanwhile', tasks.length ? ms(Math.max(...tasks)) : 'none over 50 ms');
}
