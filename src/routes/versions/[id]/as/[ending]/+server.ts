import { db } from '$server/db';
import { downloadScore } from '$server/download';
import { findVersion, realiseVersion } from '$server/studio/versions';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** A version with its fingers, counts and pedal, in any format. */
export const GET: RequestHandler = ({ params }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, 'There is no such version.');
  const { score } = realiseVersion(db(), version);
  return downloadScore(score, `${version.title}, level ${version.level}`, params.ending);
};
