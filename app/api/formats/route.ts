import { route } from '@/server/http/route';
import { formatFacts } from '@/server/formats';

export const GET = route(() => Promise.resolve(Response.json({ formats: formatFacts() })));
