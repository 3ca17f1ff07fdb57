import { RIGHTS } from '$server/studio/pieces';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ url }) => ({
  rights: RIGHTS,
  /** For tests and for machines without an instrument. */
  simulated: url.searchParams.get('keyboard') === 'simulated',
});
