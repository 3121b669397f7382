import { route } from '@/server/http/route';
import { formatFacts } from '@/server/keep/formats';

export const GET = route(() => Promise.resolve(Response.json({ formats: formatFacts() })));
