// npm run dev: for developers; reloads what is edited.
import { command } from './lib/say.mjs';
import { serve } from './lib/serve.mjs';

await command(() => serve({ name: 'run dev', demo: true, mode: 'dev' }));
