/** A thread of the pool. It has its own connection to the studio's database, which it only reads. */
import { workerData } from 'piscina';
import { openToRead } from '../db/open';
import { answerOf, type Answer, type JobName } from './work';

export interface ThreadData {
  /** The folder of the studio's database. */
  readonly folder: string;
}

const db = openToRead((workerData as ThreadData).folder);

export default ({ job, input }: { job: JobName; input: unknown }): Promise<Answer> =>
  answerOf(db, job, input);
