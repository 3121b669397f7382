import type { Size } from '@/core/geometry/size';
import { create } from 'zustand';
import type { Way } from '@/core/contracts/way';
import type { Filmed, Unseen, Stilled, Wanted } from '../contract';
import { canHold, heldPicture, holderOf } from './held';

interface ScreenStore {
  stream: MediaStream | null;
  /** What is shared, in the browser's words: a screen, a window or a tab. */
  surface: string;
  size: Size | null;
  /** Why there is no picture, in plain words. */
  said: string | null;
  /** What the browser says it does with the pointer. */
  pointer: 'in' | 'out' | 'not said';
}

export const useScreen = create<ScreenStore>(() => ({
  stream: null,
  surface: '',
  size: null,
  said: null,
  pointer: 'not said',
}));

const surfaces: Record<string, string> = {
  monitor: 'Screen',
  window: 'Window',
  browser: 'Browser tab',
};

/** Of Screen Capture (W3C): the wish for the pointer, which not every browser knows. */
type Constraints = MediaTrackConstraints & { cursor?: 'always' | 'never' };

/**
 * Asks the browser to share a screen, a window or a tab, with its sound where that is wanted; kept
 * open until it is ended.
 */
export async function startSharing({ pointer, sounds }: Way): Promise<void> {
  const media = navigator.mediaDevices as MediaDevices | undefined;
  if (!media?.getDisplayMedia) {
    useScreen.setState({
      said: 'This browser cannot share a screen with a page. Paste or open a picture instead.',
    });
    return;
  }
  try {
    const video: Constraints = { frameRate: 15, cursor: pointer ? 'always' : 'never' };
    const stream = await media.getDisplayMedia({ video, audio: sounds.includes('shared') });
    const [track] = stream.getVideoTracks();
    if (!track) throw new Error('no picture');
    track.addEventListener('ended', () => ended(stream));
    useScreen.setState({
      stream,
      surface: surfaces[track.getSettings().displaySurface ?? ''] ?? 'Screen',
      said: null,
      pointer: pointerOf(track),
    });
    await attach(stream);
  } catch (error) {
    useScreen.setState({ said: refusal(error) });
  }
}

/** Asks for the pointer in the shared picture, or for it to be left out, and notes what was had. */
/** What it does with the pointer, as far as the browser says. */
function pointerHad(): string {
  const { stream, pointer } = useScreen.getState();
  if (!stream) return 'Asked of the browser when you share';
  if (pointer === 'in') return 'The browser draws it into the picture';
  if (pointer === 'out') return 'The browser leaves it out; Mark can put one on';
  return 'Asked, but the browser does not say what it does: look at the picture. Mark can put one on';
}

async function askPointer(pointer: boolean): Promise<void> {
  const [track] = useScreen.getState().stream?.getVideoTracks() ?? [];
  if (!track) return;
  const wanted: Constraints = { cursor: pointer ? 'always' : 'never' };
  // A browser that knows no such wish may refuse it; what it does is then read off all the same.
  await track.applyConstraints(wanted).catch(() => undefined);
  useScreen.setState({ pointer: pointerOf(track) });
}

function pointerOf(track: MediaStreamTrack): ScreenStore['pointer'] {
  const settings: MediaTrackSettings & { cursor?: unknown } = track.getSettings();
  if (settings.cursor === 'always' || settings.cursor === 'motion') return 'in';
  return settings.cursor === 'never' ? 'out' : 'not said';
}

export function stopSharing(): void {
  const { stream } = useScreen.getState();
  stream?.getTracks().forEach((track) => track.stop());
  useScreen.setState({ stream: null, size: null, said: null });
}

function ended(stream: MediaStream): void {
  if (useScreen.getState().stream !== stream) return;
  useScreen.setState({
    stream: null,
    size: null,
    said: 'Sharing has ended. Share again to take more.',
  });
}

function refusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError') {
    return 'Nothing is shared: the browser or you said no. You can ask again whenever you like.';
  }
  if (name === 'NotFoundError') return 'The browser found no screen to share.';
  return 'The browser could not start sharing. Try again, or paste a picture instead.';
}

/** The element that receives the shared picture; outside the page, so every view can use it. */
let video: HTMLVideoElement | null = null;

async function attach(stream: MediaStream): Promise<void> {
  video ??= document.createElement('video');
  video.muted = true;
  video.playsInline = true;
  video.srcObject = stream;
  await video.play();
  useScreen.setState({ size: { width: video.videoWidth, height: video.videoHeight } });
  video.onresize = () => {
    if (video) useScreen.setState({ size: { width: video.videoWidth, height: video.videoHeight } });
  };
}

/** A page that is out of sight gets no new video frames drawn, but can grab one from the track. */
async function grab(track: MediaStreamTrack): Promise<ImageBitmap | null> {
  if (!('ImageCapture' in window)) return null;
  const late = new Promise<null>((resolve) => setTimeout(() => resolve(null), 700));
  const frame = new ImageCapture(track).grabFrame().catch(() => null);
  return Promise.race([frame, late]);
}

/** The picture that is shared, as long as it is. */
function sharedTrack(): MediaStreamTrack | null {
  const [track] = useScreen.getState().stream?.getVideoTracks() ?? [];
  return track?.readyState === 'live' ? track : null;
}

/** Its sound, where the browser gives it. */
const sharedSounds = (): MediaStreamTrack[] =>
  (useScreen.getState().stream?.getAudioTracks() ?? []).filter(
    ({ readyState }) => readyState === 'live',
  );

async function pictureNow(): Promise<ImageBitmap> {
  const track = sharedTrack();
  if (!track || !video) throw new Error('Nothing is shared any more. Share a screen, then take.');
  const grabbed = document.hidden ? await grab(track) : null;
  return grabbed ?? (await createImageBitmap(video));
}

async function still({ moment }: Wanted): Promise<Stilled> {
  const { surface } = useScreen.getState();
  return {
    picture: await (moment ? heldPicture(moment.id) : pictureNow()),
    title: `Shared ${surface.toLowerCase()}`,
    origin: { x: 0, y: 0 },
    windows: null,
    focused: null,
    pointer: null,
    provenance: {
      source: 'screen',
      takenAt: new Date(moment?.since ?? Date.now()).toISOString(),
      display: surface,
    },
  };
}

/** Tracks of its own: what is shared goes on when the recording ends. */
function film({ sounds }: Pick<Way, 'sounds'>): Promise<Filmed> {
  const track = sharedTrack()?.clone();
  if (!track) throw new Error('Nothing is shared any more. Share a screen, then record.');
  const { surface } = useScreen.getState();
  const heard = sounds.includes('shared') ? sharedSounds().map((one) => one.clone()) : [];
  return Promise.resolve({
    stream: new MediaStream([track, ...heard]),
    title: `Shared ${surface.toLowerCase()}`,
    letGo: () => track.stop(),
    provenance: { source: 'screen', takenAt: new Date().toISOString(), display: surface },
  });
}

function canBack(): true | string {
  if (!canHold())
    return 'This browser gives a page no moments of what is shared, only the picture of now.';
  return sharedTrack() ? true : 'Share a screen first: what is shared can be held.';
}

const canShareSound = (): true | string =>
  !sharedTrack() || sharedSounds().length > 0
    ? true
    : 'What is shared came without its sound, which most browsers give of a tab only. Stop sharing, and share it once more with its sound.';

export const screenSource: Unseen = {
  name: 'screen',
  label: 'Shared screen',
  get can() {
    const pointer = { asked: pointerHad(), ask: askPointer };
    return {
      windows: true as const,
      pointer,
      long: true as const,
      series: true as const,
      back: canBack(),
      clip: sharedTrack()
        ? (true as const)
        : 'Share a screen first: what moves on it can be recorded.',
      sounds: { shared: canShareSound(), microphone: true as const },
    };
  },
  changes: (heard) => useScreen.subscribe(heard),
  displays: () => [],
  showsRezzik: true,
  holder: holderOf(sharedTrack),
  film,
  still,
};
