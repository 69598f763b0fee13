// MusicXML in and out.
export type { ReadMusicXml } from './readMusicXml';
export { readMusicXml } from './readMusicXml';
export { writeMusicXml } from './writeMusicXml';
