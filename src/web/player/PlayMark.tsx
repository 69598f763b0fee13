import { useEffect, useRef } from 'react';
import type { TuneReport } from '#core/report';
import type { Moment, PlayerState } from './player';

/** What sounds, and where it is. */
export interface Followed {
  readonly where: () => Pick<Moment, 'index' | 'share'> | null;
  readonly sounds: TuneReport | null;
}

interface PlayMarkProps {
  readonly player: Followed;
  readonly state: Pick<PlayerState, 'status'>;
  /** A pass began to sound. */
  readonly onPass: (part: string, pass: number) => void;
}

interface Track {
  readonly index: number;
  readonly fromX: number;
  readonly toX: number;
  readonly top: number;
  readonly height: number;
}

/** The moving mark on staff and lanes. It lies over the score and is moved without drawing anything anew. */
export function PlayMark({ player, state, onPass }: PlayMarkProps) {
  const mark = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = mark.current!;
    element.style.opacity = '0';
    if (state.status !== 'playing') return;
    let frame = 0;
    let track: Track | null = null;
    let passIndex = -1;
    const step = () => {
      frame = requestAnimationFrame(step);
      const where = player.where();
      const sounding = player.sounds;
      if (where?.index == null || !sounding) {
        element.style.opacity = '0';
        return;
      }
      if (track?.index !== where.index) {
        track = trackOf(element, sounding.unrolled.notes, where.index);
        const played = sounding.unrolled.notes[where.index]!;
        if (played.passIndex !== passIndex) {
          passIndex = played.passIndex;
          onPass(played.part, played.pass);
        }
      }
      if (!track) {
        element.style.opacity = '0';
        return;
      }
      element.dataset['index'] = String(where.index);
      element.style.opacity = '1';
      element.style.height = `${track.height}px`;
      element.style.transform = `translate(${track.fromX + (track.toX - track.fromX) * where.share}px, ${track.top}px)`;
    };
    // Lines that are drawn anew or move lead to other places.
    const forget = () => {
      track = null;
    };
    const observer = new ResizeObserver(forget);
    observer.observe(element.parentElement!);
    step();
    return () => {
      cancelAnimationFrame(frame);
      observer.disconnect();
    };
  }, [player, state.status, onPass]);
  return (
    <div
      ref={mark}
      data-play-mark
      aria-hidden
      className="pointer-events-none absolute top-0 left-0 z-10 w-0.5 rounded-full bg-woad opacity-0"
    />
  );
}

/** Where the mark goes while a note sounds: from its head to the next one's, or to the end of its line. */
function trackOf(
  element: HTMLElement,
  notes: readonly { readonly ids: readonly string[]; readonly note: { readonly id: string } }[],
  index: number,
): Track | null {
  const root = element.parentElement!;
  const at = headOf(root, notes[index]!.note.id);
  if (!at) return null;
  const next = notes[index + 1] && headOf(root, notes[index + 1]!.note.id);
  const frame = root.getBoundingClientRect();
  const line = at.line.getBoundingClientRect();
  const follows = next && next.line === at.line && next.x > at.x;
  const view = root.closest('main')?.getBoundingClientRect();
  if (view && (line.top < view.top || line.bottom > view.bottom))
    at.line.scrollIntoView({ block: line.height > view.height ? 'start' : 'nearest' });
  const scrolled = at.line.getBoundingClientRect();
  const shifted = root.getBoundingClientRect();
  return {
    index,
    fromX: at.x - frame.left,
    toX: (follows ? next.x : line.right) - frame.left,
    top: scrolled.top - shifted.top,
    height: scrolled.height,
  };
}

/** A notehead's place on the page, and the drawing of its line. */
function headOf(root: HTMLElement, id: string): { readonly x: number; readonly line: SVGSVGElement } | null {
  const target = root.querySelector<SVGElement>(`[data-note="${CSS.escape(id)}"]`);
  const line = target?.ownerSVGElement;
  if (!target || !line) return null;
  const box = line.getBoundingClientRect();
  const scale = box.width / line.viewBox.baseVal.width;
  return { x: box.left + Number(target.getAttribute('data-x')) * scale, line };
}
