import workletUrl from './capture.worklet.ts?worker&url';

/** Why nothing can be heard through a microphone. */
export type MicrophoneFault = 'none' | 'refused' | 'absent' | 'busy' | 'fault';

export class MicrophoneProblem extends Error {
  constructor(readonly fault: MicrophoneFault) {
    super(fault);
  }
}

export const MICROPHONE_WORDS: Readonly<Record<MicrophoneFault, string>> = {
  none: 'This browser does not let pages use a microphone. A sound file or the simulated player works without one.',
  refused:
    'The browser was told not to let this page listen. Allow the microphone in its settings for this page, then record again.',
  absent: 'No microphone was found. Plug one in, or choose a sound file or the simulated player.',
  busy: 'The microphone is in use by something else, or does not answer.',
  fault: 'The microphone could not be started.',
};

export interface MicrophoneInput {
  readonly id: string;
  readonly name: string;
}

/** A microphone that is open. */
export interface OpenMicrophone {
  readonly sampleRate: number;
  /** Blocks that did not come through, so far. */
  readonly lost: () => number;
  readonly close: () => void;
}

/** Names of the inputs; they have none until the page was once allowed to listen. */
export async function microphoneInputs(): Promise<MicrophoneInput[]> {
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  const all = (await devices?.enumerateDevices().catch(() => [])) ?? [];
  return all
    .filter(({ kind, deviceId }) => kind === 'audioinput' && deviceId !== '')
    .map(({ deviceId, label }, i) => ({ id: deviceId, name: label || `Microphone ${i + 1}` }));
}

/**
 * Opens a microphone as it is: nothing that browsers do to voices is done to the fiddle.
 * @throws MicrophoneProblem
 */
export async function openMicrophone(
  deviceId: string | null,
  onBlock: (block: Float32Array) => void,
): Promise<OpenMicrophone> {
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (!devices) throw new MicrophoneProblem('none');
  const stream = await devices
    .getUserMedia({
      audio: {
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
        ...(deviceId === null ? {} : { deviceId: { exact: deviceId } }),
      },
    })
    .catch((error: unknown) => {
      throw new MicrophoneProblem(faultOf(error));
    });
  const stopStream = () => {
    for (const track of stream.getTracks()) track.stop();
  };
  const context = new AudioContext();
  try {
    await context.resume();
    await context.audioWorklet.addModule(workletUrl);
    const source = context.createMediaStreamSource(stream);
    const capture = new AudioWorkletNode(context, 'capture', { numberOfOutputs: 0 });
    let [next, lost] = [0, 0];
    capture.port.onmessage = ({ data }: MessageEvent<{ readonly number: number; readonly block: Float32Array }>) => {
      lost += data.number - next;
      next = data.number + 1;
      onBlock(data.block);
    };
    source.connect(capture);
    return {
      sampleRate: context.sampleRate,
      lost: () => lost,
      close: () => {
        capture.port.onmessage = null;
        source.disconnect();
        stopStream();
        void context.close().catch(() => undefined);
      },
    };
  } catch {
    stopStream();
    void context.close().catch(() => undefined);
    throw new MicrophoneProblem('fault');
  }
}

function faultOf(error: unknown): MicrophoneFault {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused';
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return 'absent';
  return name === 'NotReadableError' || name === 'AbortError' ? 'busy' : 'fault';
}
