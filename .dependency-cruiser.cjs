/** Which folder may import which: the floors, from the top down. */
const FLOORS = ['app', 'interface', 'server', 'standins', 'core']
/**
 * The folders of a folder, from the bottom up; `.` is the place of the files beside them. Each imports only from those
 * before it.
 */
const ORDER = {
  core: ['base', 'bikes', 'riders', 'setups', 'classes', 'comfort', 'simulated', 'messages', 'operations'],
  'core/base': ['.', 'school'],
  'core/bikes': ['scale', 'bike', 'calibration', 'care', 'saddles'],
  'core/riders': [
    'retention',
    'consent',
    'limits',
    'plans',
    'rider',
    'kinematics',
    'inference',
    'evidence',
    'gauge',
    'memberPage',
    'riderFile',
  ],
  'core/riders/evidence': ['definition', 'kinds', '.'],
  'core/riders/evidence/kinds': ['body', 'onBike'],
  'core/setups': [
    'recommend',
    'moves',
    'fleet',
    'register',
    'translate',
    'misSet',
    'openFiles',
    'learning',
    'show',
    'alone',
  ],
  'core/setups/recommend': ['history', 'saddle', 'bars', 'request', 'steps', 'knowledge', 'further', '.'],
  'core/classes': ['plan', 'watch', 'planning'],
  'core/comfort': ['model', 'findings', 'changes', 'weighing', '.', 'programme'],
  'core/messages': ['words', 'bikes', 'setups', 'classes', 'comfort', 'riders', 'studio', '.'],
  'core/operations': ['requests', '.'],
  server: [
    'platform',
    'studio',
    'bikes',
    'riders',
    'setups',
    'classes',
    'comfort',
    'privacy',
    'files',
    'pages',
    'commands',
  ],
  'server/platform': ['.', 'sealing', 'db', 'accounts', 'receipts', 'lease', 'compute', 'http'],
  'server/riders': ['.', 'members', 'memberPage'],
  'server/classes': ['calendar', 'rooms', '.', 'bookings', 'cards'],
  'server/privacy': ['accessLog', '.'],
  'server/commands': ['useCases', 'generated', '.'],
  interface: [
    'commands',
    'compute',
    'kit',
    'offline',
    'frame',
    'bikes',
    'comfort',
    'setups',
    'riders',
    'classes',
    'studio',
  ],
  'interface/kit': ['lazyDialog', '.', 'antd', 'theme', 'scale', 'body', 'drawing', 'figures'],
  'interface/offline': ['delivery', '.'],
  'interface/frame': ['finder', 'signIn', 'accounts', 'outboxStatus', '.'],
  'interface/bikes': ['.', 'accommodation', 'types', 'tape', 'machine', 'fleet'],
  'interface/comfort': ['limits', 'exercises', 'programme', 'picture', 'reasons', 'story'],
  'interface/setups': [
    'move',
    'steps',
    'misSet',
    'gauge',
    'questions',
    'scales',
    'rows',
    'panel',
    'show',
    'alone',
    '.',
  ],
  'interface/riders': ['members', 'otherBikes', 'memberPage', 'data', 'bringIn', 'rider'],
  'interface/classes': [
    '.',
    'timetable',
    'head',
    'rooms',
    'plan',
    'watch',
    'before',
    'after',
    'round',
    'cues',
    'today',
  ],
  'interface/studio': ['privacy', 'files', 'people', 'devices', 'firstHour', 'operation', '.'],
}
/** Libraries of plain arithmetic and checking. */
const LIBRARIES = ['@sinclair/typebox', 'ajv', 'jstat', 'lru-cache', 'ml-matrix', 'munkres', 'pure-rand']
const TEST = '\\.test\\.tsx?$'
const any = (names) => `(${names.join('|')})`
/** What lies in these children of a folder. */
const within = (folder, children) =>
  `^${folder}/(${children.map((child) => (child === '.' ? '[^/]+$' : `${child}/`)).join('|')})`

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
    ...Object.entries(ORDER).flatMap(([folder, children]) => [
      ...children.slice(0, -1).map((child, i) => ({
        name: `${folder}/${child}-looks-up`,
        severity: 'error',
        from: { path: within(folder, [child]), pathNot: TEST },
        to: { path: within(folder, children.slice(i + 1)) },
      })),
      {
        name: `${folder}-unlisted`,
        comment: 'a new folder gets its place in ORDER above',
        severity: 'error',
        from: {},
        to: { path: `^${folder}/[^/]+/`, pathNot: `^${folder}/${any([...children, 'testing'])}/` },
      },
    ]),
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
