import { config } from 'zod';

// Schemas would else be compiled in the page, which its own policy forbids: each would report that.
config({ jitless: true });
