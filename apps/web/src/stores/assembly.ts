import { defineStore } from 'pinia';
import { until, watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  ANGLE,
  explain,
  formatQuantity,
  headOf,
  LENGTH,
  type LengthUnit,
  transformPoint,
  ORIGIN_DATUMS,
  type Box3,
  type Id,
  type RigidTransform,
  type Project,
  type Topology,
  type Vec3,
  type CoordinateKey,
  isAngle,
  sameProject,
} from '@helb/core';
import {
  explodedPoses,
  isBranching,
  memberPose,
  MechanismEquations,
  restOf,
  type Member,
  type Place,
  type Pose,
} from '@helb/core/assembly';
import { namesIn, assemblyTotals, type Interference } from '@helb/engine';
import { bodyPick, guidePick, type Guide } from '../view/picks.ts';
import type { MemberPick } from '../view/placed-picks.ts';
import { useModel, type BuiltAssembly } from './model.ts';
import { useMotion } from './motion.ts';
import { isAt } from './poses.ts';
import { useProject } from './project.ts';
import { useTouching } from './touching.ts';
import { useUnits } from './units.ts';

/** Places that a trace keeps. */
const MOST_PLACES = 4000;

/** All parts that are placed: as the engine brought them together, and where they are now. */
export const useAssembly = defineStore('assembly', () => {
  const store = useProject();
  const { unit } = useUnits();
  const model = useModel();
  const touching = useTouching();
  const built = shallowRef<BuiltAssembly>();
  /** Of all bodies that came with a mesh: these are sent once only. */
  const topologies = new Map<string, Topology>();
  /** Where everything is; undefined at rest. Never kept. */
  const moved = shallowRef<Pose>();
  const picked = shallowRef<readonly MemberPick[]>([]);
  const hovered = shallowRef<readonly MemberPick[]>([]);
  /** Members that are not shown. */
  const hidden = shallowRef<ReadonlySet<string>>(new Set());
  /** From 0, together, to 1. */
  const exploded = ref(0);
  const interferences = shallowRef<readonly Interference[]>();
  /** How far a search for interference has come. */
  const searching = ref<{ done: number; of: number }>();
  /** Two members and the places at which they come nearest, or overlap. */
  const pointed = shallowRef<Pick<Interference, 'a' | 'b' | 'from' | 'to'>>();
  /** Placements that a list speaks of: they light up. */
  const lit = shallowRef<readonly string[]>([]);
  const paths = shallowRef<ReadonlyMap<string, readonly Vec3[]>>(new Map());
  /** Is there more than one way on from where it was driven to? */
  const parting = ref(false);
  const arrivals = ref(0);
  /** The project as it was when it was brought together last. */
  const broughtFor = shallowRef<Project>();

  const assembled = computed(() => built.value?.assembled);
  const pose = computed(() => moved.value ?? assembled.value?.rest);
  const isPlaced = computed(() => Object.keys(store.project?.assembly?.placements ?? {}).length > 0);
  const nameOf = computed(() => {
    const [project, all] = [store.project, assembled.value];
    if (project && all) return namesIn(project, all);
    // before all is brought together
    const { placements = {}, joints = {}, relations = {} } = project?.assembly ?? {};
    return (path: string): string => (placements[headOf(path)] ?? joints[path] ?? relations[path])?.name ?? path;
  });

  /** What is wrong with a joint, a relation or a ratio, and with which others it can not hold; empty where nothing is. */
  function troubleOf(id: Id): string {
    const { issues, conflict = [] } = assembled.value ?? {};
    const issue = issues?.get(id);
    if (issue) return explain(issue);
    const others = conflict.filter((other) => other !== id).map(nameOf.value);
    if (!conflict.includes(id)) return '';
    return others.length > 0
      ? `It fights with ${others.join(', ')}: one of them has to go or to change.`
      : 'It can not be fulfilled.';
  }

  /** Waits until everything is brought together as the project is now; not for ever, where something is in the way. */
  async function together(): Promise<void> {
    const isDone = () => !isPlaced.value || broughtFor.value === store.project;
    await until(isDone).toBe(true, { timeout: 20_000, throwOnTimeout: false });
  }

  // what belongs to one project says nothing of another
  watch(
    () => store.id,
    () => {
      topologies.clear();
      built.value = moved.value = interferences.value = pointed.value = undefined;
      picked.value = hovered.value = [];
      hidden.value = new Set();
      paths.value = new Map();
      exploded.value = 0;
      freed();
    },
  );

  /** The latest request, until its answer has come. */
  let asked: symbol | undefined;

  /** @param known keys of the bodies that the view has */
  async function assemble(project: Project, known: readonly string[]): Promise<void> {
    const all = Object.values(built.value?.parts ?? {}).flatMap(({ bodies }) => bodies);
    // what was previewed and is kept now is brought together already; another view may have bodies to get, and what is on
    // its way would come after it
    if (!asked && broughtFor.value && !model.trouble && all.every(({ key }) => known.includes(key)))
      if (sameProject(asBuilt(broughtFor.value), asBuilt(project))) return void (broughtFor.value = project);
    const mine = (asked = Symbol());
    const reply = await model.assemble(project, known);
    if (asked !== mine) return;
    asked = undefined;
    if (!reply || store.project === undefined) return;
    const before = { all: assembled.value, pose: moved.value };
    for (const { key, topology } of Object.values(reply.parts).flatMap(({ bodies }) => bodies))
      if (topology) topologies.set(key, topology);
    built.value = reply;
    broughtFor.value = project;
    moved.value = before.all && before.pose && carriedOn(before.all.mechanism.bodies, before.pose, reply);
    void touching.refresh(project, reply, moved.value ?? reply.assembled.rest);
    interferences.value = pointed.value = undefined;
    paths.value = new Map();
    freed();
    parting.value = false;
    // what is of another body now is picked as a whole
    choose(
      picked.value.flatMap((pick): (string | MemberPick)[] => {
        const member = memberOf(pick.member);
        const there = member && reply.parts[member.part]?.bodies.some(({ key }) => key === pick.body);
        if (!member) return [];
        return [there || pick.kind === 'guide' ? pick : pick.member];
      }),
    );
    arrivals.value++;
  }

  /** A pose of what was there before for what is there now: the nearest in which everything holds. */
  function carriedOn(
    bodies: readonly { id: string }[],
    { poses, coordinates }: Pose,
    { assembled: next }: BuiltAssembly,
  ) {
    const rest = restOf(next.mechanism);
    const from = next.mechanism.bodies.map(({ id }, k) => {
      const at = bodies.findIndex((body) => body.id === id);
      return (at < 0 ? undefined : poses[at]) ?? next.rest.poses[k]!;
    });
    const solved = new MechanismEquations(next.mechanism).solve({ ...rest, poses: from, coordinates });
    return solved.fulfilled && !isAt(solved, next.rest) ? solved : undefined;
  }

  const memberOf = (id: string): Member | undefined => assembled.value?.members.find((member) => member.id === id);

  /** Picks placements as a whole: from a list, or in the view. */
  function choose(members: readonly (string | MemberPick)[]): void {
    picked.value = members.flatMap((one): MemberPick[] => {
      if (typeof one !== 'string') return [one];
      const member = memberOf(one);
      const key = member && built.value?.parts[member.part]?.bodies[0]?.key;
      const topology = key === undefined ? undefined : topologies.get(key);
      if (!member) return [];
      const pick = key !== undefined && topology ? bodyPick(key, 0, topology) : guidePick(ITS_ORIGIN, 0);
      return [{ ...pick, member: one, at: [0, 0, 0] }];
    });
  }

  /** Where each body is shown, exploded where it is. */
  const shownPoses = computed((): readonly RigidTransform[] => {
    const [all, now] = [assembled.value, pose.value];
    if (!all || !now) return [];
    const boxOf = (part: Id) => built.value!.parts[part]?.totals.box_mm ?? undefined;
    return explodedPoses(all, now, boxOf, exploded.value);
  });
  const memberPoses = computed(
    (): ReadonlyMap<string, RigidTransform> =>
      new Map(
        assembled.value?.members.map((member) => [member.id, memberPose(member, { poses: shownPoses.value })]) ?? [],
      ),
  );

  /** Where a member is, however far apart all is drawn: for figures. */
  function poseOf(id: string): RigidTransform | undefined {
    const [member, now] = [memberOf(id), pose.value];
    return member && now && memberPose(member, now);
  }

  /** Mass and centre of what is placed, where it is. */
  const totals = computed(() => {
    const [project, all, now] = [store.project, built.value, pose.value];
    if (!project || !all || !now) return undefined;
    const parts = Object.entries(all.parts).map(([id, { bodies }]) => ({ id, bodies }));
    return assemblyTotals(project, { parts }, all.assembled.members, now);
  });

  /** Round what is placed, where it is; absent until that is found. */
  const box = shallowRef<Box3>();
  watch([built, pose], () => (box.value = undefined));
  watchDebounced(
    [built, pose],
    async () => {
      const [project, all, now] = [broughtFor.value, built.value, pose.value];
      if (!project || !now) return;
      const found = await model.engine.extents(project, now.poses).catch(() => undefined);
      // the same built may be for another record by now
      if (pose.value === now && built.value === all) box.value = found;
    },
    { debounce: 120 },
  );

  function moveTo(next: Pose): void {
    moved.value = next;
    parting.value = false;
    interferences.value = pointed.value = undefined;
    const grown = new Map(paths.value);
    for (const [id, place] of tracedPlaces()) grown.set(id, [...(grown.get(id) ?? []), place].slice(-MOST_PLACES));
    paths.value = grown;
  }

  /** Where the points are now that are traced. */
  function tracedPlaces(): [string, Vec3][] {
    const [all, now] = [assembled.value, pose.value];
    if (!all || !now) return [];
    return [...all.traces].map(([id, { body, at }]) => [id, transformPoint(now.poses[body]!, at)]);
  }

  /** What a coordinate is now, as it would be typed. */
  const reading = (key: CoordinateKey, digits?: number): string =>
    typedAs(key, pose.value?.coordinates.get(key) ?? 0, unit.value, digits);

  const motion = useMotion({ assembled, pose, memberOf, nameOf, moveTo });
  const { freed, stop } = motion;
  // looked for when it has come to stand still
  watchDebounced(
    moved,
    (now) => {
      const all = assembled.value;
      parting.value =
        all !== undefined && now !== undefined && motion.drivenBy().some((key) => isBranching(all.mechanism, now, key));
    },
    { debounce: 150 },
  );

  /** Stands as it was found elsewhere, as in a study: at the last of these poses, come through the others. */
  function stand(way: readonly Pose[]): void {
    const [all, now] = [assembled.value, way.at(-1)];
    if (!all || !now) return;
    stop();
    freed();
    moveTo(now);
    const places = ({ body, at }: Place) =>
      way.slice(-MOST_PLACES).map(({ poses }) => transformPoint(poses[body]!, at));
    paths.value = new Map([...all.traces].map(([id, place]) => [id, places(place)]));
  }

  function reset(): void {
    stop();
    moved.value = undefined;
    freed();
    parting.value = false;
    paths.value = new Map();
    interferences.value = pointed.value = undefined;
  }

  /** Looks which placements overlap where they are now, or come nearer than so many mm. */
  async function lookForInterference(within: number): Promise<void> {
    const [project, now] = [store.project, pose.value];
    if (!project || !now || searching.value) return;
    searching.value = { done: 0, of: 0 };
    const report = (done: number, of: number) => void (searching.value &&= { done, of });
    const reply = await model.engine.interference(project, now.poses, within, report).catch(() => undefined);
    searching.value = undefined;
    if (!reply) store.message = 'The search failed. Try again, or change something first.';
    // of a pose that is left it says nothing
    if (reply?.kind === 'found' && pose.value === now) interferences.value = reply.interferences;
  }

  function toggleHidden(ids: readonly string[], hide: boolean): void {
    const next = new Set(hidden.value);
    for (const id of ids)
      if (hide) next.add(id);
      else next.delete(id);
    hidden.value = next;
  }

  return {
    ...motion,
    built,
    assembled,
    pose,
    moved,
    picked,
    hovered,
    hidden,
    exploded,
    interferences,
    searching,
    pointed,
    paths,
    lit,
    reading,
    parting,
    arrivals,
    isPlaced,
    nameOf,
    troubleOf,
    memberPoses,
    poseOf,
    totals,
    box,
    assemble,
    together,
    broughtFor,
    memberOf,
    choose,
    tracedPlaces,
    reset,
    stand,
    typed: (key: CoordinateKey, value: number, digits?: number) => typedAs(key, value, unit.value, digits),
    lookForInterference,
    stopLooking: () => model.stop(),
    toggleHidden,
  };
});

/** What of a project brings parts together: studies only move them. */
function asBuilt({ studies, ...project }: Project): Project {
  void studies;
  return project;
}

/** Of a part without a body, or whose body has not come yet, its origin is picked. */
const ITS_ORIGIN: Guide = {
  name: 'origin',
  words: 'origin',
  reference: { to: 'origin', name: 'origin' },
  thing: { to: 'datum', datum: ORIGIN_DATUMS.origin },
  lines: [],
  look: 'datum',
};

/** A value of a coordinate, rad or mm, as it would be typed. */
export const typedAs = (key: CoordinateKey, value: number, unit: LengthUnit, digits = 4): string =>
  formatQuantity({ amount: value, dimension: isAngle(key) ? ANGLE : LENGTH }, unit, digits);
