/** Which folder may import which. Floors from the top down; inside `core/`, rooms from the bottom up. */
const FLOORS = ['app', 'interface', 'server', 'standins', 'core']
const CORE = [
  'units',
  'scale',
  'school',
  'bike',
  'rider',
  'kinematics',
  'inference',
  'evidence',
  'gauge',
  'classPlan',
  'watch',
  'calibration',
  'fleet',
  'recommend',
  'register',
  'translate',
  'misSet',
  'planning',
  'complaints',
  'openFiles',
  'memberPage',
  'learning',
  'simulated',
  'messages',
  'operations',
]
/** Folders of the server, from the bottom up. */
const SERVER = [
  'db',
  'accounts',
  'compute',
  'http',
  'bikes',
  'members',
  'memberPage',
  'register',
  'studio',
  'setups',
  'comfort',
  'rooms',
  'files',
  'cards',
  'calendar',
  'classes',
  'bookings',
  'pages',
  'outbox',
  'commands',
]
/** Libraries of plain arithmetic and checking. */
const LIBRARIES = ['@sinclair/typebox', 'ajv', 'jstat', 'lru-cache', 'ml-matrix', 'munkres', 'pure-rand']
const TEST = '\\.test\\.tsx?$'
const any = (names) => `(${names.join('|')})`

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    { name: 'no-unresolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
    ...FLOORS.slice(1).map((floor, i) => ({
      name: `${floor}-looks-up`,
      comment: `${floor} stands below ${FLOORS.slice(0, i + 1).join(', ')}`,
      severity: 'error',
      from: { path: `^${floor}/` },
      to: { path: `^${any(FLOORS.slice(0, i + 1))}/` },
    })),
    ...CORE.slice(0, -1).map((room, i) => ({
      name: `core-${room}-looks-up`,
      severity: 'error',
      from: { path: `^core/${room}/`, pathNot: TEST },
      to: { path: `^core/${any(CORE.slice(i + 1))}/` },
    })),
    ...SERVER.slice(0, -1).map((room, i) => ({
      name: `server-${room}-looks-up`,
      severity: 'error',
      from: { path: `^server/${room}/`, pathNot: TEST },
      to: { path: `^server/${any(SERVER.slice(i + 1))}/` },
    })),
    {
      name: 'server-room-unlisted',
      comment: 'a new folder gets its place in SERVER above',
      severity: 'error',
      from: {},
      to: { path: '^server/[^/]+/', pathNot: `^server/${any(SERVER)}/` },
    },
    {
      name: 'core-root-looks-into-rooms',
      comment: 'the files beside the rooms are what all rooms stand on',
      severity: 'error',
      from: { path: '^core/[^/]+\\.ts$' },
      to: { path: '^core/[^/]+/' },
    },
    {
      name: 'core-room-unlisted',
      comment: 'a new room gets its place in CORE above',
      severity: 'error',
      from: {},
      to: { path: '^core/[^/]+/', pathNot: `^core/${any([...CORE, 'testing'])}/` },
    },
    {
      name: 'core-knows-the-outside',
      comment: 'the core is arithmetic on plain data: no screen, framework, database, clock or file',
      severity: 'error',
      from: { path: '^core/', pathNot: TEST },
      to: {
        dependencyTypesNot: ['local'],
        pathNot: `node_modules/${any(LIBRARIES)}/|^core/|validators\.generated`,
      },
    },
    {
      name: 'testing-in-use',
      comment: 'what only tests need stays with tests, benches and the command line',
      severity: 'error',
      from: { path: `^${any(FLOORS)}/`, pathNot: `${TEST}|^core/testing/` },
      to: { path: '^core/testing/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.next|\\.module\\.css$' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
}
