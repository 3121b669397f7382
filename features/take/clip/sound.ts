/** The sound that is recorded with the pictures. */
export interface Sound {
  /** It comes so much later than what is seen at the time, ms. */
  delay: number;
  /** Of all that is heard together; it goes on, silent, when what it comes from has gone. */
  track: MediaStreamTrack;
  /** Whether anything was heard of it in the last half second. */
  isHeard: () => boolean;
  letGo: () => void;
}

/** Heard is what is louder than the noise of a microphone that is off, of 1. */
const QUIETEST = 1e-4;
/** Samples that are looked at: more than half a second. */
const LOOKED_AT = 32_768;
const PATIENCE = 1_000;
/**
 * From a tab that flashes and beeps to its recording, less what its own loudspeaker would take,
 * as measured in Chromium (tests/real-screen/clipSound.test.ts), ms.
 */
const DELAY = 70;

/** @throws with words for the person */
async function openMicrophone(): Promise<MediaStreamTrack> {
  const media = navigator.mediaDevices as MediaDevices | undefined;
  if (!media?.getUserMedia) throw new Error('This browser gives pages no microphone.');
  try {
    const [track] = (await media.getUserMedia({ audio: true })).getAudioTracks();
    if (track) return track;
  } catch (error) {
    throw new Error(`${refusal(error)} Turn Microphone off to record without it.`, {
      cause: error,
    });
  }
  throw new Error('The microphone gives no sound. Turn Microphone off to record without it.');
}

function refusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError') return 'The browser or you said no to the microphone.';
  if (name === 'NotFoundError') return 'There is no microphone on this computer.';
  if (name === 'NotReadableError') return 'The microphone is in use by another program.';
  return 'The microphone could not be opened.';
}

const NOT_YET = 'The browser gives no sound yet. Click in Rezzik once, then record.';
const NO_SOUND =
  'The browser finds nothing to play sound on here, and then it records none. Turn the sound off to record without it.';

/** A browser gives no sound to a page in which nobody pressed anything yet. */
async function startedContext(): Promise<AudioContext> {
  const context = new AudioContext({ latencyHint: 'interactive' });
  const late = new Promise((resolve) => setTimeout(resolve, PATIENCE));
  if (context.state !== 'running') await Promise.race([context.resume(), late]);
  if (context.state === 'running') return context;
  await context.close();
  // Some browsers do not tell.
  const { userActivation } = navigator as Partial<Navigator>;
  throw new Error(userActivation?.hasBeenActive ? NO_SOUND : NOT_YET);
}

/**
 * What is shared and what a microphone hears, as one.
 * @param shared let go of with the rest
 * @param gone hears that the microphone, or else what is shared, has no sound any more
 * @returns null where nothing is to be heard
 * @throws with words for the person, and lets go of what is shared
 */
export async function soundOf(
  shared: readonly MediaStreamTrack[],
  withMicrophone: boolean,
  gone: (microphone: boolean) => void,
): Promise<Sound | null> {
  const tracks = [...shared];
  const letGo = () => tracks.forEach((track) => track.stop());
  try {
    const microphone = withMicrophone ? await openMicrophone() : null;
    if (microphone) tracks.push(microphone);
    if (tracks.length === 0) return null;
    const context = await startedContext();
    const together = context.createMediaStreamDestination();
    const looked = context.createAnalyser();
    looked.fftSize = LOOKED_AT;
    for (const track of tracks) {
      track.addEventListener('ended', () => gone(track === microphone));
      const source = context.createMediaStreamSource(new MediaStream([track]));
      source.connect(together);
      source.connect(looked);
    }
    const [track] = together.stream.getAudioTracks();
    if (!track) throw new Error('This browser gives no sound to record.');
    const samples = new Float32Array(looked.fftSize);
    return {
      track,
      delay: DELAY,
      isHeard: () => {
        looked.getFloatTimeDomainData(samples);
        return samples.some((sample) => Math.abs(sample) > QUIETEST);
      },
      letGo: () => {
        letGo();
        void context.close();
      },
    };
  } catch (error) {
    letGo();
    throw error;
  }
}
