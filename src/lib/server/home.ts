/** The page of a practice room that is one file, filled. */
import { CONTENTS_HERE, contentsText, type HomeContents } from '$core/lessons/home';
import { readFile } from 'node:fs/promises';

/** Where the build puts the page, from the folder in which the server runs. */
const PAGE = 'build/home/room.html';

/** The bytes of the file. Rejects where the page is not built. */
export async function homeFile(contents: HomeContents, page = PAGE): Promise<Buffer> {
  const whole = await readFile(page);
  const at = whole.indexOf(CONTENTS_HERE);
  if (at < 0) throw new Error(`${page} has no place for what it is about.`);
  return Buffer.concat([
    whole.subarray(0, at),
    Buffer.from(contentsText(contents)),
    whole.subarray(at + CONTENTS_HERE.length),
  ]);
}
