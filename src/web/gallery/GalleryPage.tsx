import { useEffect, useRef } from 'react';
import { createRoot } from 'react-dom/client';
import { Link, useSearchParams } from 'react-router';
import { fakeServer } from '../testing/fakeServer';
import { type Scene, Stage } from '../testing/scene';
import { ALL_SCENES } from './allScenes';

/** `Sheet: state` of each scene. */
const SCENES: ReadonlyMap<string, Scene> = new Map(
  Object.entries(ALL_SCENES).flatMap(([sheet, scenes]) =>
    Object.entries(scenes).map(([state, scene]) => [`${sheet}: ${state}`, scene] as const),
  ),
);

/** Parts of the pages in all their states, one at a time, with a server that answers as the scene has it. */
export default function GalleryPage() {
  const [params] = useSearchParams();
  const wanted = params.get('scene');
  const scene = wanted === null ? undefined : SCENES.get(wanted);
  return (
    <main className="h-full overflow-y-auto px-5 py-4" data-scene={wanted ?? ''}>
      <h1 className="mb-2 text-room">Gallery</h1>
      <p className="mb-3 text-small text-muted">{SCENES.size} scenes, for those who build this.</p>
      <ul className="columns-2">
        {[...SCENES.keys()].map((name) => (
          <li key={name}>
            <Link className="text-woad underline" to={`?scene=${encodeURIComponent(name)}`}>
              {name}
            </Link>
          </li>
        ))}
      </ul>
      {scene && <Staged key={wanted} scene={scene} />}
      {wanted !== null && !scene && <p role="alert">There is no scene “{wanted}”.</p>}
    </main>
  );
}

/** The scene as a page of its own, with its server in place of the real one as long as it is shown. */
function Staged({ scene }: { readonly scene: Scene }) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const { fetch } = globalThis;
    const server = fakeServer();
    scene.answers?.(server);
    const root = createRoot(place.current!);
    root.render(<Stage scene={scene} />);
    return () => {
      globalThis.fetch = fetch;
      // Not while the page around it is being drawn.
      queueMicrotask(() => root.unmount());
    };
  }, [scene]);
  return <div ref={place} />;
}
