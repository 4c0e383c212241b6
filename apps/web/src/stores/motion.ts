import { until } from '@vueuse/core';
import { ref, shallowRef, type ComputedRef } from 'vue';
import { inverse, isAngle, jointOf, transformPoint, type CoordinateKey, type Vec3 } from '@helb/core';
import {
  drive,
  driving,
  Grab,
  repeatedBy,
  type Assembled,
  type Coordinates,
  type Driven,
  type Member,
  type Pose,
  type Touch,
} from '@helb/core/assembly';
import { isAt } from './poses.ts';
import { useTouching } from './touching.ts';

/** What is moved, and how its poses are taken. */
interface Moved {
  readonly assembled: ComputedRef<Assembled | undefined>;
  readonly pose: ComputedRef<Pose | undefined>;
  readonly nameOf: ComputedRef<(path: string) => string>;
  memberOf(id: string): Member | undefined;
  moveTo(pose: Pose): void;
}

/** Driving by numbers, pulling by the hand and running; what stopped it, in words. */
export function useMotion({ assembled, pose, nameOf, memberOf, moveTo }: Moved) {
  const touching = useTouching();
  /** What a drive or a hand could not do, in words. */
  const stuck = ref('');
  /** Where parts stand against each other, after a motion that met something. */
  const against = shallowRef<readonly Touch[]>([]);
  /** What was driven against something, and to which side it can go no further. */
  const blocked = shallowRef<{ readonly key: CoordinateKey; readonly side: 'least' | 'most' }>();
  /** Drives coordinates to values, rad or mm, within their limits. */
  function driveTo(values: Coordinates): boolean {
    const [all, from] = [assembled.value, pose.value];
    if (!all || !from) return false;
    freed();
    // until it is known what touches nothing moves: it would pass through
    if (touching.isPreparing) return wait(values);
    const { contacts } = touching;
    if (contacts) return driveStepwise(driving(all.mechanism, from, values, contacts), values);
    return ended(drive(all.mechanism, from, values, moveTo), values);
  }

  /** Drives once what touches is made ready, unless something else was asked for by then. */
  function wait(values: Coordinates): boolean {
    const mine = underWay;
    stuck.value = 'It waits until what touches is made ready.';
    void until(() => touching.isPreparing)
      .toBe(false)
      .then(() => mine === underWay && driveTo(values));
    return true;
  }

  function ended(driven: Driven, values: Coordinates): boolean {
    if (driven.share === 1) moveTo(driven.pose);
    stuck.value = whatStopped(driven, values);
    against.value = driven.against;
    const [key, ...others] = values.keys();
    const way = key === undefined ? 0 : values.get(key)! - (driven.pose.coordinates.get(key) ?? 0);
    if (key !== undefined && others.length === 0 && driven.against.length > 0)
      blocked.value = { key, side: way > 0 ? 'most' : 'least' };
    drivenBy = driven.arrived ? [...values.keys()] : [];
    return driven.arrived;
  }

  /** What is under way, step by step; the next motion takes its place. */
  let underWay = 0;
  const isUnderWay = ref(false);

  /** Goes on as long as a frame may take, then with the next one: the page stays alive while parts push each other. */
  function driveStepwise(going: Generator<Pose | undefined, Driven>, values: Coordinates): boolean {
    const mine = ++underWay;
    isUnderWay.value = true;
    const goOn = (): boolean => {
      if (mine !== underWay) return true;
      const frameEnds = performance.now() + FRAME;
      do {
        const next = going.next();
        if (next.done) {
          isUnderWay.value = false;
          return ended(next.value, values);
        }
        if (next.value) moveTo(next.value);
      } while (performance.now() < frameEnds);
      requestAnimationFrame(goOn);
      return true;
    };
    return goOn();
  }

  /** Ends what is under way, and what it met. */
  function freed(): void {
    underWay++;
    isUnderWay.value = false;
    stuck.value = '';
    against.value = [];
    blocked.value = undefined;
  }

  /** The coordinates by which it came to where it is. */
  let drivenBy: readonly CoordinateKey[] = [];
  function whatStopped({ arrived, stops, suspects, against: met }: Driven, values: Coordinates): string {
    if (arrived) return '';
    if (met.length > 0) return `It stops: ${standing(met)}.`;
    const [stop] = stops;
    if (stop !== undefined)
      return values.has(stop) ? 'It stops at its limit.' : `It stops: ${nameOf.value(jointOf(stop))} is at its limit.`;
    if (suspects.length === 0) return 'It stops: how parts would push each other further was not found.';
    return `Held before it got there by ${[...new Set(suspects)].slice(0, 3).map(nameOf.value).join(', ')}.`;
  }

  /** "Arm stands against Drive block", of each two once. */
  function standing(touches: readonly Touch[]): string {
    const said = touches.map(({ a, b }) => `${nameOf.value(a)} stands against ${nameOf.value(b)}`);
    return [...new Set(said)].slice(0, 3).join(', ');
  }

  /** Takes a member by the hand; each call of what comes back moves it towards a place in space. */
  function grab(member: string, at: Vec3): ((goal: Vec3) => void) | undefined {
    const [all, found, from] = [assembled.value, memberOf(member), pose.value];
    if (!all || !found || !from || all.mechanism.bodies[found.body]!.grounded) return undefined;
    freed();
    if (touching.isPreparing)
      return void (stuck.value = 'It waits until what touches is made ready: take it again then.');
    // a repeat is taken by the first of its kind
    const first = (place: Vec3) => transformPoint(inverse(repeatedBy(found, pose.value!)), place);
    const place = { body: found.body, at: transformPoint(inverse(from.poses[found.body]!), first(at)) };
    const { contacts } = touching;
    const hand = new Grab(all.mechanism, place, contacts);
    drivenBy = [];
    if (!contacts) return (goal) => moveTo(hand.pull(pose.value!, first(goal)));
    // the hand is ahead of what pushes: it is followed a few steps a frame
    let [wanted, mine]: [Vec3 | undefined, number] = [undefined, underWay];
    const follow = () => {
      if (!wanted || mine !== underWay || !pose.value) return void (wanted = undefined);
      const next = hand.pull(pose.value, wanted, STEPS_A_FRAME);
      const isThere = isAt(next, pose.value);
      moveTo(next);
      against.value = hand.against;
      stuck.value = hand.against.length > 0 ? `${standing(hand.against)}.` : '';
      if (isThere) wanted = undefined;
      else requestAnimationFrame(follow);
    };
    return (goal) => {
      const isFollowing = wanted !== undefined;
      [wanted, mine] = [first(goal), underWay];
      if (!isFollowing) requestAnimationFrame(follow);
    };
  }

  /** The coordinate that is being animated. */
  const running = ref<CoordinateKey>();
  let frame = 0;
  function animate(key: CoordinateKey): void {
    stop();
    running.value = key;
    let way = 1;
    let before = performance.now();
    const step = (now: number) => {
      if (running.value !== key || !pose.value) return;
      if (isUnderWay.value) return void (frame = requestAnimationFrame(step));
      if (blocked.value) way = -way;
      const seconds = Math.min(0.05, (now - before) / 1000);
      before = now;
      const speed = isAngle(key) ? TURN_SPEED : assembled.value!.mechanism.size;
      const value = (pose.value.coordinates.get(key) ?? 0) + way * speed * seconds;
      // at a limit, and where it can go no further, it turns back
      if (!driveTo(new Map([[key, value]])) && !blocked.value) way = -way;
      stuck.value = '';
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
  }
  function stop(): void {
    running.value = undefined;
    cancelAnimationFrame(frame);
  }

  return {
    ...{ stuck, against, blocked, isUnderWay, running },
    drivenBy: () => drivenBy,
    driveTo,
    grab,
    animate,
    stop,
    freed,
  };
}

/** How long a frame may compute, ms. */
const FRAME = 14;
/** How many steps the hand is followed in a frame, where parts touch. */
const STEPS_A_FRAME = 2;

/** A turn in four seconds. */
const TURN_SPEED = Math.PI / 2;
