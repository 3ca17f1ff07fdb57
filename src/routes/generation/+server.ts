import type { RequestHandler } from './$types';

/** Which generation the studio is, as each answer says in its head: open pages ask now and then whether they are still of it. */
export const GET: RequestHandler = () => new Response(null, { status: 204 });
