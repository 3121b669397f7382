// npm start: the same as the demo, without demo data.
import { command } from './lib/say.mjs';
import { serve } from './lib/serve.mjs';

await command(() => serve({ name: 'start' }));
