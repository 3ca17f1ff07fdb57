/** A version as a recording to take away: rendered here, without a device, by the graph that is heard on the bench. */
import { perform } from '$core/performance/perform';
import { programOf, type ProgramSettings } from '$core/performance/program';
import type { Version } from '$core/version/realise';
import { grand, recordingOf, standIn, toneLibrary } from './instruments';
import { wavOf } from './wav';

/** The whole of a version, in the hands and at the tempo that are heard, as a WAV file. */
export async function wavOfVersion(
  version: Pick<Version, 'score' | 'feel'>,
  heard: Pick<ProgramSettings, 'hands' | 'share' | 'click' | 'countIn' | 'counts'>,
): Promise<Uint8Array<ArrayBuffer>> {
  const performance = perform(version.score, version.feel);
  const program = programOf(performance, version.score.measures, { from: 0, to: performance.end, ...heard });
  const tone = await toneLibrary();
  const pianoOn = (context: BaseAudioContext) => grand(tone, context).catch(() => standIn(tone));
  return wavOf(await recordingOf(tone, program, pianoOn));
}
