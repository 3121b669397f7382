import { afterAll, afterEach, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { DescribingSession } from '@/tests/lib/describingSession';
import { XDisplay } from '@/tests/lib/xDisplay';
import { scoreProgram } from '@/tests/parts/programs';
import { shownBy } from '@/tests/parts/runProgram';
import { closeAccessibilityBus } from '../accessibility/bus';
import { closeScreen } from '../display/connection';
import { closeSessionBus } from '../bus/bus';

/**
 * How well the parts of real programs are found, one a toolkit, by what they describe of themselves.
 * These were looked at while the finder was made; those kept apart are measured by the bench.
 */

let display: XDisplay;
let session: DescribingSession;

beforeAll(async () => {
  display = await XDisplay.open(1440, 900);
  // Without a graphics processor, as the makers of GTK 4 advise.
  Object.assign(process.env, { DISPLAY: display.name, GSK_RENDERER: 'cairo' });
});
afterAll(async () => {
  closeScreen();
  await display.close();
});
beforeEach(async () => {
  session = await DescribingSession.open();
});
afterEach(async () => {
  closeAccessibilityBus();
  closeSessionBus();
  await session.close();
});

test.each([
  // Of GTK 3's own show of all its widgets; what is missed has no edge, and much room around it.
  { program: 'gtk3-widget-factory', all: 0.38, edged: 0.9 },
  { program: 'gtk4-icon-browser', all: 0.55, edged: 1 },
  { program: 'speedcrunch', all: 0.3, edged: 0.7 },
])('$program: parts with an edge nearly all, others as far as they repeat', async (wanted) => {
  const { picture, things, window } = await shownBy(display, [wanted.program]);
  const got = scoreProgram(picture, things, window);
  if (process.env.REZZIK_SHOW_SCORE) console.log(wanted.program, JSON.stringify(got));
  expect(got.elements).toBeGreaterThan(8);
  expect(got.found / got.elements).toBeGreaterThanOrEqual(wanted.all);
  expect(got.edgedFound / got.edged).toBeGreaterThanOrEqual(wanted.edged);
  expect(got.right / got.offered).toBeGreaterThanOrEqual(0.75);
});
