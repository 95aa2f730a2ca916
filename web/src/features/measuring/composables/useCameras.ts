import { onScopeDispose, ref, shallowRef } from 'vue';

/** Why no camera can be used, as a key of messages. */
export type NoCamera = 'refused' | 'none' | 'busy' | 'insecure';

export interface Camera {
  id: string;
  label: string;
}

const REASONS: Record<string, NoCamera> = {
  NotAllowedError: 'refused',
  SecurityError: 'refused',
  NotFoundError: 'none',
  OverconstrainedError: 'none',
  NotReadableError: 'busy',
  AbortError: 'busy',
};

/** Cameras of this device: one is open at a time, and none once nobody looks. */
export function useCameras() {
  const cameras = ref<Camera[]>([]);
  const stream = shallowRef<MediaStream | null>(null);
  /** Which one is open. */
  const current = ref('');
  const failed = ref<NoCamera | null>(null);
  let asked = 0;

  function close() {
    asked++;
    stream.value?.getTracks().forEach((track) => track.stop());
    stream.value = null;
  }

  /** Opens a camera by its id, or any; only then do browsers tell the names of cameras. */
  async function open(id?: string) {
    close();
    const mine = asked;
    failed.value = null;
    // Not there on pages without https, whatever its type says.
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    if (!devices) {
      failed.value = 'insecure';
      return;
    }
    try {
      const opened = await devices.getUserMedia({
        video: { ...(id ? { deviceId: { exact: id } } : {}), width: { ideal: 4096 }, height: { ideal: 4096 } },
      });
      if (mine !== asked) {
        opened.getTracks().forEach((track) => track.stop());
        return;
      }
      stream.value = opened;
      current.value = opened.getVideoTracks()[0]?.getSettings().deviceId ?? '';
      cameras.value = (await devices.enumerateDevices())
        .filter((d) => d.kind === 'videoinput')
        .map((d) => ({ id: d.deviceId, label: d.label }));
    } catch (reason) {
      if (mine === asked) failed.value = REASONS[(reason as DOMException).name] ?? 'none';
    }
  }

  onScopeDispose(close);
  return { cameras, current, stream, failed, open, close };
}

/** What a camera shows now, at its full size. */
export async function still(video: HTMLVideoElement): Promise<Blob> {
  const canvas = document.createElement('canvas');
  canvas.width = video.videoWidth;
  canvas.height = video.videoHeight;
  canvas.getContext('2d')?.drawImage(video, 0, 0);
  return new Promise((taken, failed) => {
    canvas.toBlob((blob) => (blob ? taken(blob) : failed(new Error('no picture'))), 'image/jpeg', 0.95);
  });
}
