// Asks for a page of the Shelf again and again, as somebody who looks at it meanwhile: a process of
// its own, so that what the measuring one has to do is not counted. Its argument is the address.
// Its first line says that it is there; at the end of its input it writes how long each answer
// took after that, ms.

import { setTimeout as pause } from 'node:timers/promises';

const [address] = process.argv.slice(2);
const took = [];
let busy = true;
process.stdin.resume().on('end', () => (busy = false));

async function ask() {
  const answer = await fetch(address);
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`The Shelf answered ${answer.status}.`);
}

// A program's first questions are slow by themselves.
for (let i = 0; i < 20; i += 1) await ask();
process.stdout.write('ready\n');
while (busy) {
  const begun = performance.now();
  await ask();
  took.push(performance.now() - begun);
  await pause(20);
}
process.stdout.write(JSON.stringify(took));
