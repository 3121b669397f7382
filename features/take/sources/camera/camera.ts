import { create } from 'zustand';
import { limits } from '@/core/values/limits';
import { asLine } from '@/core/values/text';
import type { Filmed, Unseen, Stilled } from '../contract';

interface CameraStore {
  stream: MediaStream | null;
  label: string;
  said: string | null;
}

export const useCamera = create<CameraStore>(() => ({ stream: null, label: '', said: null }));

/** Counts askings and closings: a permission that comes after the view was left opens nothing. */
let asked = 0;

/** Asks for a camera; open only while Take shows it. */
export async function startCamera(): Promise<void> {
  const media = navigator.mediaDevices as MediaDevices | undefined;
  if (!media?.getUserMedia) {
    useCamera.setState({
      said: 'This browser gives pages no camera. Open or paste a picture instead.',
    });
    return;
  }
  asked += 1;
  const mine = asked;
  try {
    const stream = await media.getUserMedia({
      video: { width: { ideal: 3840 }, height: { ideal: 2160 } },
    });
    if (mine !== asked) {
      stream.getTracks().forEach((late) => late.stop());
      return;
    }
    const [track] = stream.getVideoTracks();
    if (!track) throw new Error('no picture');
    track.addEventListener('ended', () => {
      if (useCamera.getState().stream === stream) {
        useCamera.setState({
          stream: null,
          said: 'The camera has gone. Open it again to take more.',
        });
      }
    });
    useCamera.setState({ stream, label: track.label || 'Camera', said: null });
  } catch (error) {
    if (mine === asked) useCamera.setState({ said: refusal(error) });
  }
}

export function stopCamera(): void {
  asked += 1;
  const { stream } = useCamera.getState();
  useCamera.setState({ stream: null, said: null });
  stream?.getTracks().forEach((track) => track.stop());
}

function refusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError')
    return 'The browser or you said no to the camera. You can ask again.';
  if (name === 'NotFoundError') return 'There is no camera on this computer.';
  if (name === 'NotReadableError') return 'The camera is in use by another program.';
  return 'The camera could not be opened.';
}

async function still(): Promise<Stilled> {
  const { stream, label } = useCamera.getState();
  const [track] = stream?.getVideoTracks() ?? [];
  if (!track || track.readyState !== 'live')
    throw new Error('The camera is not open. Open it, then take.');
  const video = document.createElement('video');
  video.muted = true;
  video.srcObject = stream;
  await video.play();
  const picture = await createImageBitmap(video);
  video.srcObject = null;
  return {
    picture,
    title: 'Camera',
    origin: { x: 0, y: 0 },
    windows: null,
    focused: null,
    pointer: null,
    provenance: {
      source: 'camera',
      takenAt: new Date().toISOString(),
      display: asLine(label, limits.nameLength),
    },
  };
}

function film(): Promise<Filmed> {
  const { stream, label } = useCamera.getState();
  const track = stream?.getVideoTracks()[0]?.clone();
  if (track?.readyState !== 'live')
    throw new Error('The camera is not open. Open it, then record.');
  return Promise.resolve({
    stream: new MediaStream([track]),
    title: 'Camera',
    letGo: () => track.stop(),
    provenance: {
      source: 'camera',
      takenAt: new Date().toISOString(),
      display: asLine(label, limits.nameLength),
    },
  });
}

export const cameraSource: Unseen = {
  name: 'camera',
  label: 'Camera',
  can: {
    windows: 'A camera sees no windows. Region, Free shape and Part choose a part of its picture.',
    long: 'A camera has nothing to scroll.',
    series: true,
    clip: true,
    sounds: { microphone: true },
    back: 'Of a camera nothing is held: it takes what it sees now.',
    pointer: { not: 'A camera picture has no pointer; one can be put on in Mark.' },
  },
  full: { note: 'All that the camera sees', take: 'Take the picture' },
  displays: () => [],
  still,
  film,
};
