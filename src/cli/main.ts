/** `./keypath COMMAND [options] FILE` as a process. */
import { keypath } from './run';

const args = process.argv.slice(2);
const [name = ''] = args;
if (['backup', 'restore', 'passphrase'].includes(name)) {
  // Only these need the database.
  const { studioCommand } = await import('./studio');
  process.exitCode = await studioCommand(name, args[1]);
} else {
  const { status, stdout, stderr } = keypath(args);
  process.stderr.write(stderr);
  process.stdout.write(stdout);
  process.exitCode = status;
}
