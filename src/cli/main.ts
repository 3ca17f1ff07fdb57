/** `./keypath COMMAND [options] FILE` as a process. */
import { keypath } from './run';

const { status, stdout, stderr } = keypath(process.argv.slice(2));
process.stderr.write(stderr);
process.stdout.write(stdout);
process.exitCode = status;
