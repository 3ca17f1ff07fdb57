/** How far the work is that a page waits for, by the path of that page; and the end of it, where it is no longer wanted. */
import { doing, stopWork } from '$server/pool';
import { z } from 'zod';
import { error, json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

const path = z.string().startsWith('/').max(300);

function pathIn(url: URL): string {
  const asked = path.safeParse(url.searchParams.get('for'));
  if (!asked.success) error(400, 'There’s no page to wait for.');
  return asked.data;
}

export const GET: RequestHandler = ({ url }) => json(doing(pathIn(url)) ?? null);

export const DELETE: RequestHandler = ({ url }) => {
  stopWork(pathIn(url));
  return new Response(null, { status: 204 });
};
