// npm run at-login: from now on the desktop starts Rezzik with its person; npm run at-login -- off
// takes that away again.

import { addAutostart, autostartFile, removeAutostart } from './lib/autostart.mjs';
import { command, say, Stop } from './lib/say.mjs';

await command(() => {
  const [wish = 'on', ...more] = process.argv.slice(2);
  if (more.length > 0 || !['on', 'off'].includes(wish))
    throw new Stop('Say “npm run at-login” or “npm run at-login -- off”.');
  if (wish === 'off') {
    const was = removeAutostart();
    say(was ? `Removed: ${autostartFile()}` : 'Rezzik was not started at login.');
    return;
  }
  say(`Written: ${addAutostart()}`);
  say('Your desktop starts Rezzik when you log in the next time: system keys and series then go');
  say('on with no browser open. “npm run at-login -- off” takes that away again.');
});
