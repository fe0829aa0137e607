/**
 * In: the border of a piece, a tool and how deep. Out: the tool's moves round it: its middle a radius beside the border, down along it,
 * over holding tabs, led in and out through the waste.
 */
import { type IsWaste, ledInAndOut } from '../make/leads.ts';
import { startedAt, startPoints } from '../make/start-points.ts';
import { distance, nearestOnPath, type Path, type Point, pathLength, reversedPath, stepsOf, subPath } from '../plane/index.ts';
import { type HoldingTab, type HoldingTabs, tabKnots, tabsOn } from './holding-tabs.ts';
import { entryFor, levelsTo, spiralKnots } from './levels.ts';
import { type MillTool, radiusOf } from './mill-tool.ts';
import { aboveMm, type Heights, type Knot, Moves } from './moves.ts';
import { inset, turnedFor } from './tool-rings.ts';

export type ProfileSide = 'outside' | 'inside' | 'on';

export interface ProfileSettings {
  readonly side: ProfileSide;
  readonly topZ: number;
  readonly bottomZ: number;
  readonly direction: 'climb' | 'conventional';
  /** Left by the rough passes and taken off by the last, mm; 0 for one cut. */
  readonly finishMm: number;
  readonly entryAngle: number | null;
  /** The radius of the quarter circle by which the tool comes and goes, mm; 0 for none. */
  readonly leadMm: number;
  readonly tabs: HoldingTabs | null;
}

export interface ProfileMade {
  readonly moves: Moves;
  /** Middles of the tabs that it leaves, on the sheet. */
  readonly tabsAt: readonly Point[];
}

/** Where the middle of the tool goes round a border, each path closed. Empty where the tool does not fit. */
function profilePaths(border: Path, side: ProfileSide, byMm: number): Path[] {
  if (side === 'on' || byMm === 0) return [border];
  return inset({ outer: border, holes: [] }, side === 'outside' ? -byMm : byMm).flatMap(({ outer, holes }) => [outer, ...holes]);
}

/**
 * @param border closed
 * @param isWaste whether a lead lies in the waste
 * @returns null where the tool fits nowhere
 */
export function profileMoves(
  border: Path,
  tool: MillTool,
  settings: ProfileSettings,
  heights: Heights,
  isWaste: IsWaste,
): ProfileMade | null {
  const { side, finishMm, direction } = settings;
  const radius = radiusOf(tool);
  const paths = profilePaths(border, side, radius).map((ring) => startedWell(turnedFor(ring, side === 'outside', direction)));
  const [first] = paths;
  if (!first) return null;
  const rough = finishMm > 0 ? profilePaths(border, side, radius + finishMm) : [];
  const cut = new Cut(tool, settings, heights, new Moves(tool, first.start, heights), isWaste);
  const tabsAt = paths.flatMap((path) => cut.round(path, rough));
  cut.moves.lift(heights.safeZ);
  return { moves: cut.moves, tabsAt };
}

/** A border as it is cut, path by path. */
class Cut {
  constructor(
    private readonly tool: MillTool,
    private readonly settings: ProfileSettings,
    private readonly heights: Heights,
    readonly moves: Moves,
    private readonly isWaste: IsWaste,
  ) {}

  /** Once down and round a path; the middles of the tabs that are left. */
  round(path: Path, rough: readonly Path[]): Point[] {
    const tabs = this.settings.tabs ? tabsOn(path, this.settings.tabs, radiusOf(this.tool)) : [];
    const outer = nearestRing(rough, path);
    if (outer) {
      this.roughed(outer, path, tabs);
      this.last(path, tabs);
    } else this.whole(path, tabs);
    this.moves.lift(this.heights.hopZ);
    return tabs.map(({ at }) => at);
  }

  /** Down along the path and once round at the bottom, in one cut, led in and out. */
  private whole(path: Path, tabs: readonly HoldingTab[]): void {
    const { moves, settings } = this;
    const led = this.led(path, settings.leadMm);
    this.begin(led.into?.start ?? path.start);
    if (led.into) moves.along(led.into, [{ along: 0, z: settings.topZ }]);
    this.down(path, tabs, led.out !== null);
    if (led.out) moves.along(led.out, [{ along: 0, z: settings.bottomZ }]);
  }

  /** All that stands further out, down to the bottom, with what the last pass will take still on. */
  private roughed(ring: Path, path: Path, tabs: readonly HoldingTab[]): void {
    const { side, direction } = this.settings;
    const loop = startedAt(turnedFor(ring, side === 'outside', direction), nearestOnPath(ring, path.start).point);
    const places = tabs.map(({ at }) => at);
    this.begin(loop.start);
    this.down(loop, this.settings.tabs ? tabsOn(loop, { ...this.settings.tabs, places }, radiusOf(this.tool)) : []);
  }

  /** Once round at the bottom, from where the rough cut ended, which is near; led in and out within what that has cleared. */
  private last(path: Path, tabs: readonly HoldingTab[]): void {
    const { moves, settings } = this;
    const { bottomZ, topZ } = settings;
    const led = this.led(path, Math.min(settings.leadMm, radiusOf(this.tool)));
    const start = led.into?.start ?? path.start;
    if (distance(moves.at, start) < 2 * this.tool.diameterMm && moves.at.z <= bottomZ + 1e-9) moves.line({ ...start, z: bottomZ });
    else {
      moves.over(start, this.heights.hopZ, topZ + aboveMm);
      moves.plunge(bottomZ);
    }
    if (led.into) moves.along(led.into, [{ along: 0, z: bottomZ }]);
    this.along(path, [{ along: 0, z: bottomZ }], tabs, pathLength(path));
    if (led.out) moves.along(led.out, [{ along: 0, z: bottomZ }]);
  }

  private led(path: Path, leadMm: number): { into: Path | null; out: Path | null } {
    return leadMm > 0 ? leadsOf(path, { ...this.settings, leadMm }, this.isWaste) : { into: null, out: null };
  }

  private begin(at: Point): void {
    this.moves.over(at, this.heights.hopZ, this.settings.topZ + aboveMm);
    this.moves.plunge(this.settings.topZ);
  }

  /**
   * In one spiral; straight down at the start of each round where the tool may.
   * @param endsAtStart whether the last round has to end where the path starts
   */
  private down(path: Path, tabs: readonly HoldingTab[], endsAtStart = false): void {
    const { topZ, bottomZ, entryAngle } = this.settings;
    const entry = entryFor(this.tool, entryAngle);
    const round = pathLength(path);
    const knots =
      entry === null
        ? levelsTo(topZ, bottomZ, this.tool.stepdownMm).flatMap((z, k) => [{ along: k * round, z }, { along: (k + 1) * round, z }])
        : spiralKnots(round, topZ, bottomZ, this.tool.stepdownMm, entry, endsAtStart); // biome-ignore format: knots
    this.along(path, knots, tabs, (knots.at(-1) as Knot).along);
  }

  private along(path: Path, knots: readonly Knot[], tabs: readonly HoldingTab[], to: number): void {
    const { settings } = this;
    this.moves.along(subPath(path, 0, to), settings.tabs ? tabKnots(knots, tabs, pathLength(path), settings.tabs) : knots);
  }
}

const nearestRing = (rings: readonly Path[], path: Path): Path | null => {
  const away = (ring: Path): number => nearestOnPath(ring, path.start).distance;
  return rings.length > 0 ? rings.reduce((best, ring) => (away(ring) < away(best) ? ring : best)) : null;
};

/** Begun in the middle of its longest side, where a lead has room and a tab would not lie at the start. */
function startedWell(path: Path): Path {
  const steps = stepsOf(path);
  const corners = startPoints(path, 'corner');
  const longest = steps.reduce((best, step) => (distance(step.from, step.segment.to) > distance(best.from, best.segment.to) ? step : best));
  const middle = { x: (longest.from.x + longest.segment.to.x) / 2, y: (longest.from.y + longest.segment.to.y) / 2 };
  return startedAt(path, corners.length === 0 ? path.start : nearestOnPath(path, middle).point);
}

/** The ways in and out of a closed path. Leads look for waste on the right: a path with it on the left is led the other way round. */
function leadsOf(path: Path, { leadMm, direction }: ProfileSettings, isWaste: IsWaste): { into: Path | null; out: Path | null } {
  const lead = { kind: 'arc' as const, inMm: leadMm, outMm: leadMm };
  const whole =
    direction === 'conventional'
      ? ledInAndOut(path, { lead, overcutMm: 0 }, isWaste)
      : reversedPath(ledInAndOut(reversedPath(path), { lead, overcutMm: 0 }, isWaste));
  if (whole.closed) return { into: null, out: null };
  const open = { ...whole, closed: false };
  const first = stepsOf(open)[0];
  const isLed = distance(open.start, path.start) > 1e-6;
  const end = open.segments.at(-1)?.to as Point;
  const isLedOut = distance(end, path.start) > 1e-6;
  const last = stepsOf(open).at(-1);
  return {
    into: isLed && first ? { start: open.start, segments: [first.segment], closed: false } : null,
    out: isLedOut && last ? { start: path.start, segments: [last.segment], closed: false } : null,
  };
}
