import { valueAt, type Path, type SystemDocument } from '@/core/plan';
import type { Finding, NotJudged, Severity, Stage } from '@/core/rules';

/** A piece of the work of a stage that fits a screen or two. */
export type Task = {
  readonly key: string;
  readonly label: string;
  /** What is settled there, for who looks for it. */ readonly question: string;
  /** Values that are entered there, a star for any entry of a list; the longest that fits a path wins. */
  readonly fields: readonly string[];
  /** Rules whose findings are mended there. */ readonly rules: readonly string[];
  /** Which of the conditions change what is seen there. */ readonly acts: Acts;
};

export type Acts = 'nothing' | 'liquid' | 'flow';

export type PlaceOfTask = { readonly stage: Stage; readonly task: string };

/** Each stage's tasks in the order of the work; a stage of one task is not divided. */
export const TASKS: Readonly<Record<Stage, readonly Task[]>> = {
  fit: [
    {
      key: 'clearance',
      label: 'Clearance',
      question: 'What the tank touches, what is too near, and where it stands',
      fields: ['tanks.*.mounting'],
      rules: [
        'fit.fouls',
        'fit.too-near',
        'fit.may-foul',
        'fit.near-heat',
        'fit.in-spray',
        'fit.occupied',
        'fit.covers-reach',
        'fit.cannot-compute',
        'expelled.over-wheels',
        'fit.unit-doubt',
      ],
      acts: 'nothing',
    },
    {
      key: 'bay',
      label: 'Bay',
      question: 'The space as measured: tape, string, templates',
      fields: ['fit.bay'],
      rules: ['fit.contradiction'],
      acts: 'nothing',
    },
    {
      key: 'obstacles',
      label: 'Obstacles',
      question: 'What stands in the space, and what moves or is hot',
      fields: ['fit.obstacles'],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'size',
      label: 'Job & size',
      question: 'What the job asks for, and how big the tank could be',
      fields: ['fit.clearance_m', 'constraints'],
      rules: ['fit.nothing-cut', 'fit.hot-work', 'fit.parts-on-hand'],
      acts: 'nothing',
    },
    {
      key: 'removal',
      label: 'In & out',
      question: 'How the tank gets in, and out again',
      fields: ['fit.removal'],
      rules: ['fit.no-way-kept'],
      acts: 'nothing',
    },
    {
      key: 'reach',
      label: 'Reach',
      question: 'Whether hand, spanner, torch and nozzle get to each place',
      fields: ['fit.spots'],
      rules: [
        'reach.no-tool',
        'reach.before-fitting',
        'reach.drain',
        'reach.no-nozzle',
        'reach.no-torch',
        'reach.no-sight',
        'reach.no-hand',
      ],
      acts: 'nothing',
    },
    {
      key: 'templates',
      label: 'Templates',
      question: 'Full-size outlines to try in the space',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'measure-up',
      label: 'Measure-up',
      question: 'What is still to be measured in the space, most telling first',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'built',
      label: 'As built',
      question: 'The tank as it was made, against the plan',
      fields: ['tanks.*.built'],
      rules: [],
      acts: 'nothing',
    },
  ],
  tank: [
    {
      key: 'shape',
      label: 'Shape',
      question: 'Its sizes, and what is added or cut away',
      fields: ['tanks.*', 'tanks.*.shape', 'tanks.*.parts', 'tanks.*.slices', 'tanks.*.fillLimit_ratio'],
      rules: [
        'tank.shared-wall-apart',
        'tank.filled-past-limit',
        'tank.limit-unlike-plan',
        'tank.no-head-room',
        'tank.smaller-than-wished',
        'inside.separate-bodies',
        'inside.twisted-panels',
        'expelled.too-small',
        'coolant.draws-air',
        'coolant.no-room',
      ],
      acts: 'liquid',
    },
    {
      key: 'baffles',
      label: 'Baffles & surge',
      question: 'Compartments, slosh, and what a hard corner does',
      fields: [
        'practice.surge',
        'tanks.*.plates',
        'limits',
        'envelope.braking_mPerS2',
        'envelope.driving_mPerS2',
        'envelope.cornering_mPerS2',
      ],
      rules: [
        'inside.surge-compartment-too-large',
        'inside.compartment-cut-off',
        'inside.compartment-keeps-fuel',
        'inside.refill-too-slow',
        'inside.no-air-gap',
        'inside.flap-away',
        'inside.starves-in-manoeuvre',
        'inside.slosh-meets-movement',
        'inside.can-refills-slowly',
        'inside.can-over-lid',
        'inside.idle-part',
        'inside.surge-unlike-plan',
      ],
      acts: 'liquid',
    },
    {
      key: 'foam',
      label: 'Foam',
      question: 'What of it is bought, how it is cut and goes in',
      fields: ['tanks.*.foam', 'tanks.*.foam_ratio'],
      rules: ['inside.float-in-foam', 'inside.foam-does-not-pass'],
      acts: 'nothing',
    },
    {
      key: 'metal',
      label: 'Metal & fuel',
      question: 'Sheet, fuel and mass',
      fields: ['tanks.*.material', 'fluids', 'practice.welds', 'practice.flats'],
      rules: [
        'tank.thin-sheet',
        'tank.shared-wall-liquids',
        'tank.cracks-at-bends',
        'tank.heavy-lift',
        'tank.material-caution',
        'tank.dressed-thin',
        'tank.petrol-aboard',
        'tank.material-and-fluid',
      ],
      acts: 'nothing',
    },
    {
      key: 'contact',
      label: 'Fuel contact',
      question: 'What the fuel may touch: metals, seals, hoses, sealants',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'seals',
      label: 'Seals & inside',
      question: 'What seals each port, and what stands in the fuel',
      fields: ['tanks.*.inside', 'tanks.*.ports.*.seal', 'practice.lining'],
      rules: ['contact.does-not-stand-it', 'tank.lining-unlike-plan'],
      acts: 'nothing',
    },
    {
      key: 'slopes',
      label: 'Slopes & balance',
      question: 'The slopes it has to work at, and where its weight goes',
      fields: ['envelope', 'tanks.*.mounting.pitch_deg', 'tanks.*.mounting.roll_deg'],
      rules: [],
      acts: 'liquid',
    },
    {
      key: 'tables',
      label: 'Tables',
      question: 'Volume against depth, as a chart and a strapping table',
      fields: [],
      rules: [],
      acts: 'liquid',
    },
  ],
  ports: [
    {
      key: 'faces',
      label: 'Faces & holes',
      question: 'Each face as a sheet, with its holes to size',
      fields: [],
      rules: [
        'tank.hole-below-liquid',
        'tank.part-outside',
        'port.off-sheet',
        'expelled.no-drain',
        'port.neighbour',
        'port.hose-end',
        'port.near-bend',
        'port.near-seam',
        'port.over-baffle',
        'port.fouls-inside',
        'port.fouls-outside',
        'port.not-flat',
        'port.too-thick',
        'port.few-turns',
        'port.off-plate',
        'port.on-shared-wall',
        'port.no-spare',
        'port.new-beside-existing',
      ],
      acts: 'nothing',
    },
    {
      key: 'list',
      label: 'Ports, one by one',
      question: 'Each port’s part, bore and place; the hole chart',
      fields: ['tanks.*.ports'],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'pickups',
      label: 'Pickups',
      question: 'What each can draw, and what is left for the others',
      fields: ['tanks.*.pickups'],
      rules: [
        'pickup.too-high',
        'pickup.in-the-dirt',
        'pickup.unlike-plan',
        'pickup.loses-on-slope',
        'pickup.draws-air-now',
        'pickup.bottom-outlet',
        'pickup.near-arm',
        'pickup.near-baffle',
        'pickup.heater-outlasts',
      ],
      acts: 'liquid',
    },
    {
      key: 'attitude',
      label: 'Attitude map',
      question: 'What stays behind at every slope',
      fields: [],
      rules: [],
      acts: 'liquid',
    },
    {
      key: 'threads',
      label: 'Threads',
      question: 'Which thread it is, from its diameter and pitch',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
  ],
  lines: [
    {
      key: 'delivery',
      label: 'Does it get there?',
      question: 'Flow and pressure at the consumer, and where the pressure goes',
      fields: ['practice.catchTank', 'practice.expelledPlace', 'consumers'],
      rules: [
        'line.cannot-deliver',
        'line.thin-margin',
        'line.too-much-pressure',
        'line.no-flow',
        'line.vapour-lock',
        'line.lift-too-high',
        'line.properties-stretched',
        'line.boils-on-the-way',
        'line.starves-when-low',
        'line.engine-needs-more',
        'expelled.back-pressure',
        'expelled.wrong-tank',
        'coolant.boils',
        'nozzle.backs-up',
        'nozzle.by-hand',
        'pump.too-few-strokes',
      ],
      acts: 'flow',
    },
    {
      key: 'schematic',
      label: 'Schematic',
      question: 'All circuits; any line or part, with its fields',
      fields: ['lines', 'components'],
      rules: [
        'line.fast-suction',
        'line.no-filter',
        'line.low-voltage',
        'line.not-in-flow',
        'line.end-open',
        'line.in-tank-apart',
        'line.too-short',
        'line.ends-apart',
        'line.bend-too-tight',
        'line.held-too-far',
        'line.no-grommet',
        'line.rigid-but-moves',
        'line.wire-thin',
        'line.fuse-wrong',
        'line.no-relay',
        'line.meter-in-the-dirt',
        'expelled.nowhere',
        'nozzle.does-not-enter',
        'nozzle.fill-too-large',
        'pump.dosed-line-wide',
      ],
      acts: 'flow',
    },
    {
      key: 'runs',
      label: 'Run by run',
      question: 'A run from end to end: build it, change it, its pressure and height on the way',
      fields: [],
      rules: [],
      acts: 'flow',
    },
    {
      key: 'sizing',
      label: 'Sizing',
      question: 'The next size up or down, and pump against system',
      fields: [],
      rules: [],
      acts: 'flow',
    },
    {
      key: 'circuits',
      label: 'Return & transfer',
      question: 'Return, transfer and gravity feed, with their valves',
      fields: ['wishes.moves_m3'],
      rules: [
        'line.return-elsewhere',
        'line.return-aerates',
        'line.return-warms',
        'line.sight-misreads',
        'line.transfer-goes-on',
        'line.transfer-overfills',
        'line.transfer-short',
        'line.transfer-unlike-plan',
      ],
      acts: 'flow',
    },
    {
      key: 'failure',
      label: 'If it fails',
      question: 'Siphons and spills, wherever it is opened or breaks',
      fields: [],
      rules: ['line.siphons', 'line.spills-when-opened', 'line.flows-back', 'line.coupler-spills'],
      acts: 'flow',
    },
    {
      key: 'passing',
      label: 'Heat & rubbing',
      question: 'Lines past heat and moving parts',
      fields: [],
      rules: ['line.near-heat', 'line.near-moving'],
      acts: 'nothing',
    },
    {
      key: 'joints',
      label: 'Joints',
      question: 'What joins to what, and what seals it',
      fields: ['lines.*.from.seal', 'lines.*.to.seal'],
      rules: ['line.joint-broken', 'line.hose-stretched', 'line.pressure-over-rating'],
      acts: 'nothing',
    },
    {
      key: 'shopping',
      label: 'Cut & buy',
      question: 'Lengths to cut, parts to buy, own parts',
      fields: [],
      rules: ['line.fuel-attacks'],
      acts: 'nothing',
    },
  ],
  vents: [
    {
      key: 'vents',
      label: 'Vents & fillers',
      question: 'Bores, necks, caps and marks, and whether the air follows',
      fields: ['tanks.*.ports'],
      rules: [
        'vent.too-small-for-draw',
        'vent.too-small-for-fill',
        'vent.flooded',
        'vent.shuts-itself',
        'vent.end-under-water',
        'vent.missing',
        'vent.filler-narrow',
        'vent.holds-pressure',
        'vent.cap-fills-slowly',
        'open-end.inside',
        'open-end.no-screen',
        'fill.mixed-up',
      ],
      acts: 'flow',
    },
    {
      key: 'size',
      label: 'Vent size',
      question: 'How wide a vent has to be, how high its line, and what heat drives out',
      fields: ['limits.fill_m3PerS', 'limits.over_Pa', 'limits.under_Pa', 'limits.hot_K'],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'transfer',
      label: 'Tank to tank',
      question: 'By pump, gravity, vacuum or selector: how fast, what goes wrong, what has to stand how',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'time',
      label: 'Over time',
      question: 'What happens as it is filled, run, parked, warmed or turned over',
      fields: ['scenarios'],
      rules: [],
      acts: 'nothing',
    },
  ],
  gauge: [
    {
      key: 'needle',
      label: 'Needle',
      question: 'What the gauge shows against what is in the tank',
      fields: ['tanks.*.senders.*.gauge'],
      rules: [
        'gauge.lies',
        'gauge.range-mismatch',
        'gauge.unseen',
        'gauge.dry-above-empty',
        'gauge.lamp-late',
        'gauge.broken-wire',
        'gauge.capacitive-blend',
      ],
      acts: 'liquid',
    },
    {
      key: 'sender',
      label: 'Sender',
      question: 'Its sizes in the tank, or one designed for it',
      fields: ['tanks.*.senders'],
      rules: ['gauge.float-hits-floor', 'gauge.float-hits-lid', 'gauge.cannot-swing', 'gauge.salvaged-unmeasured'],
      acts: 'liquid',
    },
    {
      key: 'scales',
      label: 'Sight & stick',
      question: 'Sight tube and dipstick, with their marks',
      fields: ['tanks.*.sightTubes', 'tanks.*.dipsticks'],
      rules: ['gauge.sight-blind', 'gauge.no-stick'],
      acts: 'liquid',
    },
    {
      key: 'calibration',
      label: 'Calibration',
      question: 'Pours, and what they say of the tank and the sender',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
    {
      key: 'correction',
      label: 'Correction table',
      question: 'What the gauge shows at round fillings, from the plan',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
  ],
  range: [
    {
      key: 'range',
      label: 'Range',
      question: 'How far and how long it goes',
      fields: ['vehicle', 'wishes', 'rulebook', 'consumers.*.burnFull_m3PerS', 'consumers.*.burnIdle_m3PerS'],
      rules: ['range.shorter-than-wished', 'range.no-reserve', 'range.timed-over-full'],
      acts: 'flow',
    },
  ],
  mounts: [
    {
      key: 'layout',
      label: 'Layout',
      question: 'What holds the tank: where it is, how it is made, what it is bolted to',
      fields: ['mounts'],
      rules: [
        'mount.astray',
        'mount.strap-span',
        'mount.bare',
        'mount.over-port',
        'mount.over-seam',
        'mount.edge',
        'mount.through-wall',
        'mount.tab-on-thin',
        'mount.cradle-loose',
        'mount.fouls',
        'mount.near',
        'mount.no-tool',
        'mount.covered',
        'mount.not-said',
      ],
      acts: 'nothing',
    },
    {
      key: 'loads',
      label: 'Loads',
      question: 'How hard it is thrown each way, and what its liquid presses then',
      fields: ['shocks', 'tanks.*.fitted_kg'],
      rules: ['mount.liquid-presses'],
      acts: 'nothing',
    },
    {
      key: 'strength',
      label: 'Does it hold?',
      question: 'Thrown each way: whether it is held, and what gives first',
      fields: [],
      rules: ['mount.not-held', 'mount.too-weak', 'mount.creeps', 'mount.shaken'],
      acts: 'nothing',
    },
    {
      key: 'weight',
      label: 'Weight',
      question: 'What full and empty tanks do to axles and coupling, or to trim and heel',
      fields: ['stance', 'tanks.*.elsewhere'],
      rules: [
        'weight.axle-over',
        'weight.whole-over',
        'weight.lifts',
        'weight.steers-light',
        'weight.hitch-over',
        'weight.hitch-share',
        'weight.heels',
        'weight.trims',
        'weight.unsteady',
      ],
      acts: 'nothing',
    },
    {
      key: 'lifted',
      label: 'Lifted',
      question: 'On forks, on its feet and from slings: how far it leans, what a leg bears',
      fields: [],
      rules: [],
      acts: 'nothing',
    },
  ],
};

const STAGE_ORDER = Object.keys(TASKS) as Stage[];

/** The tasks of a stage; none where it is not divided. */
export const tasksOf = (stage: string): readonly Task[] => {
  const tasks = TASKS[stage as Stage] ?? [];
  return tasks.length > 1 ? tasks : [];
};

/** Every pattern with its task, taken apart once. */
const PATTERNS = STAGE_ORDER.flatMap((stage) =>
  TASKS[stage].flatMap(({ key: task, fields }) => fields.map((pattern) => ({ stage, task, keys: pattern.split('.') }))),
);

/** The task whose pattern fits the most of a path, of the stages that are asked about. */
function longestFit(path: Path, isAsked: (stage: Stage) => boolean): PlaceOfTask | undefined {
  let best: (typeof PATTERNS)[number] | undefined;
  for (const pattern of PATTERNS) {
    const { stage, keys } = pattern;
    if (!isAsked(stage) || keys.length > path.length || keys.length <= (best?.keys.length ?? 0)) continue;
    if (keys.every((key, i) => key === '*' || key === String(path[i]))) best = pattern;
  }
  return best && { stage: best.stage, task: best.task };
}

/** Where a value is entered. */
export function placeOfField(system: SystemDocument, path: Path): PlaceOfTask {
  if (path[2] === 'ports' && path[4] !== 'seal') {
    const { role } = (valueAt(system, path.slice(0, 4)) ?? {}) as { readonly role?: string };
    if (role === 'vent' || role === 'filler') return { stage: 'vents', task: 'vents' };
  }
  return longestFit(path, (stage) => stage !== 'vents') ?? { stage: 'range', task: 'range' };
}

/** Where a value is entered in a stage that has it, else where it is entered at all. */
export const placeIn = (stage: string, system: SystemDocument, path: Path): PlaceOfTask =>
  longestFit(path, (one) => one === stage) ?? placeOfField(system, path);

/** The task at which what a rule says is mended. */
export function taskOfRule({ id, stage }: Pick<Finding | NotJudged, 'id' | 'stage'>): string {
  const found = TASKS[stage].find(({ rules }) => rules.includes(id));
  if (found) return found.key;
  // What a rulebook says of a tank is of its metal and its tests.
  return id.startsWith('book.') && stage === 'tank' ? 'metal' : TASKS[stage][0]!.key;
}

/** How a place stands: its worst finding, else what is not known of it, else nothing. */
export type Standing = Exclude<Severity, 'note'> | 'unknown' | 'looking' | undefined;

type Told = {
  readonly findings: readonly Pick<Finding, 'id' | 'stage' | 'severity'>[];
  readonly notJudged: readonly Pick<NotJudged, 'id' | 'stage'>[];
  readonly onTheWay: readonly string[];
  readonly failed: readonly string[];
};

/**
 * How a stage stands, or a task of it. What is still on its way, or failed, may be about any of them: no place is clear
 * before that is known.
 */
export function standingOf({ findings, notJudged, onTheWay, failed }: Told, stage: string, task?: string): Standing {
  if (!(stage in TASKS)) return undefined;
  const here = (each: Pick<Finding, 'id' | 'stage'>): boolean =>
    each.stage === stage && (task === undefined || taskOfRule(each) === task);
  const severities = findings.filter(here).map(({ severity }) => severity);
  if (severities.includes('stop')) return 'stop';
  if (severities.includes('warn')) return 'warn';
  if (failed.length > 0 || notJudged.some(here)) return 'unknown';
  return onTheWay.length > 0 ? 'looking' : undefined;
}

/** What of the conditions acts on what is open. */
export function actsOn(stage: string, task: string | undefined): Acts {
  const tasks = TASKS[stage as Stage];
  if (!tasks) return stage === 'findings' ? 'flow' : 'nothing';
  return (tasks.find(({ key }) => key === task) ?? tasks[0]!).acts;
}
