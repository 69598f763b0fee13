import { useEffect, useMemo, useRef, useState } from 'react';
import type { TuneReport } from '#core/report';
import { referenceOf, type TakeReference, thresholdsWith } from '#core/take';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import type { TakeSubject } from './hearProtocol';
import { acceptedTakes } from './keptTakes';

/** What a take of a checked plan is listened to for, at the player's thresholds. */
export function useTakeSubject(
  report: TuneReport,
  span: TakeSubject['span'],
  {
    percentOf = whole,
    drill = null,
  }: {
    /** Of the tempo wanted, when a take begins. */
    readonly percentOf?: () => number;
    readonly drill?: TakeSubject['drill'];
  } = {},
): (loops?: number) => Promise<TakeSubject> {
  const { listening } = useAppSelector(selectSettings).settings;
  const percent = useRef(percentOf);
  useEffect(() => {
    percent.current = percentOf;
  });
  return useMemo(() => {
    const { bpm, start: _start, beat: _beat, ...settings } = report.settings;
    return async (loops = 1) => ({
      tune: report.tune,
      settings,
      bpm: (bpm * percent.current()) / 100,
      span,
      loops,
      a4: listening.a4,
      thresholds: thresholdsWith(listening.thresholds),
      reference: await reference(),
      drill,
    });
  }, [report, span, listening, drill]);
}

const whole = () => 100;

/** What the player's accepted takes are like; those that cannot be looked up tell nothing. */
async function reference(): Promise<TakeReference | null> {
  const accepted = await acceptedTakes().catch(() => []);
  return referenceOf(accepted.map(({ result }) => result.figures));
}

/** Looks something up that is not there at once; the value so far until then. */
export function useLookedUp<T>(look: () => Promise<T>, first: T): [T, () => void] {
  const [value, setValue] = useState(first);
  const [count, setCount] = useState(0);
  useEffect(() => {
    let isWanted = true;
    look().then(
      (found) => isWanted && setValue(found),
      () => undefined,
    );
    return () => {
      isWanted = false;
    };
  }, [look, count]);
  return [value, () => setCount((before) => before + 1)];
}
