import { db } from '$server/db';
import { roomAt } from '$server/guard/room';
import { work } from '$server/pool';
import { monthPage } from '$server/studio/monthReport';
import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** A student's month, for whoever looks after them: the same that the teacher sees. */
export const load: PageServerLoad = async ({ params, cookies, url }) => {
  const { found, isOpen } = roomAt(params.token, cookies);
  if (!isOpen) redirect(303, `/room/${params.token}`);
  const { learner } = found;
  return { token: params.token, name: learner.name, ...(await monthPage(db(), work, learner, url)) };
};
