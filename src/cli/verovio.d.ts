declare module 'verovio' {
  export const module: { calledRun?: boolean; onRuntimeInitialized?: () => void };
  export class toolkit {
    loadData(xml: string): boolean | number;
    renderToMIDI(): string;
  }
}
