/** Layers point one way only; inside a folder files are imported, across folders its door. */
const layer = (from, to) => ({
  name: `${from}-stays-below`,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: `^src/(${to})/` },
});

/**
 * The folders of the pages, each line from what the lines below it may use: parts without domain, talk with threads and
 * server, the score and the player, the open tune, sheets about it, rooms, the frame.
 */
const WEB_ROOMS = [
  ['ui'],
  ['threads'],
  ['api'],
  ['store'],
  ['score', 'audio', 'findTune'],
  ['player'],
  ['entry'],
  ['openTune'],
  ['commands'],
  ['log'],
  ['takes'],
  ['tune', 'search', 'fingering', 'drones', 'ornaments', 'crossTuning', 'twins', 'versions'],
  ['bench', 'dance', 'ground', 'handout', 'pegs', 'settings', 'book', 'sets', 'practice', 'help'],
  ['gallery'],
  ['app'],
];

/** A folder of the pages uses those of the lines before its own, and no neighbour of its own line. */
const stage = (line, at) =>
  line.map((room) => ({
    name: `web-${room}-uses-what-is-below`,
    comment: 'A folder of web uses those of the lines before its own in WEB_ROOMS; a new one is listed there.',
    severity: 'error',
    from: { path: `^src/web/${room}/` },
    to: {
      path: '^src/web/',
      pathNot: [`^src/web/${room}/`, `^src/web/(${['testing', ...WEB_ROOMS.slice(0, at).flat()].join('|')})/`],
    },
  }));

module.exports = {
  forbidden: [
    {
      name: 'no-circular',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    layer('core', 'formats|contract|words|server|web|cli'),
    layer('formats', 'contract|words|server|web|cli'),
    layer('contract', 'words|server|web|cli'),
    layer('words', 'server|web|cli'),
    layer('server', 'web|cli'),
    layer('web', 'server|cli'),
    layer('cli', 'server|web'),
    ...WEB_ROOMS.flatMap(stage),
    {
      name: 'web-folder-is-listed',
      comment: 'A new folder of web has its line in WEB_ROOMS, so that it is known what it may use.',
      severity: 'error',
      from: { path: '^src/web/[^/]+/', pathNot: `^src/web/(${['testing', ...WEB_ROOMS.flat()].join('|')})/` },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
  },
};
