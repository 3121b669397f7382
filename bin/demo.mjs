// npm run demo: everything from a bare clone to a served app with demo data.
import { command } from './lib/say.mjs';
import { serve } from './lib/serve.mjs';

await command(() => serve({ name: 'run demo', demo: true }));
