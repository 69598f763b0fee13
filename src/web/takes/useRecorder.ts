import { useCallback, useEffect, useRef, useState } from 'react';
import { MAX_TAKE_SECONDS } from '#core/take';
import { workThread } from '../threads/workerTask';
import type { HearWorker, Sound, TakeSubject } from './hearProtocol';
import { MICROPHONE_WORDS, MicrophoneProblem, openMicrophone } from './microphone';
import type { TakeResult } from './takeResult';

/** A take through the microphone, as a page shows it. */
export type Recording =
  | { readonly kind: 'idle' }
  | { readonly kind: 'starting' }
  | { readonly kind: 'recording'; readonly level: number; readonly seconds: number; readonly isSilent: boolean }
  | { readonly kind: 'hearing' }
  | { readonly kind: 'failed'; readonly words: string };

/** Below this level, dB, for so many seconds, nothing comes in. */
const SILENT_LEVEL = -62;
const SILENT_SECONDS = 3;

export const startHearing = () => new Worker(new URL('./hear.worker.ts', import.meta.url), { type: 'module' });

interface Recorded extends Sound {
  readonly result: TakeResult;
  /** Blocks that did not come through. */
  readonly lost: number;
}

export interface Recorder {
  readonly state: Recording;
  readonly start: (subject: TakeSubject, deviceId: string | null) => Promise<void>;
  /** Ends the take and gives what was heard; null where nothing was recorded. */
  readonly stop: () => Promise<Recorded | null>;
  /** Ends it without a word. */
  readonly discard: () => void;
}

interface Open {
  readonly microphone: Awaited<ReturnType<typeof openMicrophone>>;
  readonly blocks: Float32Array[];
  readonly thread: ReturnType<typeof workThread<HearWorker>>;
  readonly heard: { chain: Promise<unknown> };
  length: number;
}

/** Records through the microphone and listens meanwhile; closes it with the page. */
export function useRecorder(): Recorder {
  const [state, setState] = useState<Recording>({ kind: 'idle' });
  const open = useRef<Open | null>(null);
  /** What was asked for last: an answer to an earlier wish is not taken up. */
  const wish = useRef(0);

  const discard = useCallback(() => {
    wish.current += 1;
    open.current?.microphone.close();
    open.current?.thread.end();
    open.current = null;
    setState({ kind: 'idle' });
  }, []);
  useEffect(
    () => () => {
      wish.current += 1;
      open.current?.microphone.close();
      open.current?.thread.end();
      open.current = null;
    },
    [],
  );

  const stop = useCallback(async (): Promise<Recorded | null> => {
    const ended = open.current;
    if (!ended) return null;
    open.current = null;
    ended.microphone.close();
    setState({ kind: 'hearing' });
    try {
      await ended.heard.chain;
      const result = await ended.thread.ask((remote) => remote.end());
      const samples = new Float32Array(ended.length);
      let at = 0;
      for (const block of ended.blocks) {
        samples.set(block, at);
        at += block.length;
      }
      setState({ kind: 'idle' });
      return { result, samples, sampleRate: ended.microphone.sampleRate, lost: ended.microphone.lost() };
    } catch {
      setState({ kind: 'failed', words: 'What was recorded could not be listened to.' });
      return null;
    } finally {
      ended.thread.end();
    }
  }, []);

  const start = useCallback(
    async (subject: TakeSubject, deviceId: string | null) => {
      discard();
      const own = ++wish.current;
      setState({ kind: 'starting' });
      const thread = workThread<HearWorker>(startHearing);
      const blocks: Float32Array[] = [];
      const heard: Open['heard'] = { chain: Promise.resolve() };
      let silentSince = 0;
      const onBlock = (block: Float32Array) => {
        const recording = open.current;
        if (recording?.thread !== thread) return;
        blocks.push(block);
        recording.length += block.length;
        const { sampleRate } = recording.microphone;
        const seconds = recording.length / sampleRate;
        heard.chain = heard.chain
          .then(() => thread.ask((remote) => remote.push(block)))
          .then(({ level }) => {
            if (level > SILENT_LEVEL) silentSince = seconds;
            if (open.current === recording)
              setState({ kind: 'recording', level, seconds, isSilent: seconds - silentSince > SILENT_SECONDS });
          });
        heard.chain.catch(() => undefined);
        if (seconds >= MAX_TAKE_SECONDS) recording.microphone.close();
      };
      try {
        const microphone = await openMicrophone(deviceId, onBlock);
        if (wish.current !== own) {
          microphone.close();
          thread.end();
          return;
        }
        open.current = { microphone, blocks, thread, heard, length: 0 };
        heard.chain = thread.ask((remote) => remote.begin(subject, microphone.sampleRate));
        await heard.chain;
        setState({ kind: 'recording', level: -100, seconds: 0, isSilent: false });
      } catch (error) {
        if (wish.current !== own) return;
        discard();
        const fault = error instanceof MicrophoneProblem ? error.fault : 'fault';
        setState({ kind: 'failed', words: MICROPHONE_WORDS[fault] });
      }
    },
    [discard],
  );
  return { state, start, stop, discard };
}
