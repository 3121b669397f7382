import { route } from '@/server/http/route';
import { practiceRemote } from '@/server/remote/ownPractice';

export const POST = route(async () => Response.json(await practiceRemote(), { status: 201 }));
