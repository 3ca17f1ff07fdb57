/** `./keypath COMMAND [options] FILE` as a process. */
import { keypathOrPaper } from './run';
import { isStudioCommand } from './studioCommands';

const args = process.argv.slice(2);
const [name, file] = args;
if (isStudioCommand(name)) {
  const { studioCommand } = await import('./studio');
  process.exitCode = await studioCommand(name, file);
} else {
  const { status, stdout, stderr } = await keypathOrPaper(args);
  process.stderr.write(stderr);
  process.stdout.write(stdout);
  process.exitCode = status;
}
