import { defineStore } from 'pinia';
import { computed, shallowRef, watch } from 'vue';
import {
  dot3,
  planeOf,
  sub3,
  transformDirection,
  transformFrame,
  type Action,
  type Frame,
  type Id,
  type Result,
  headOf,
  isRepeat,
} from '@helb/core';
import {
  ASSEMBLY_RELATIONS,
  featureOf,
  frameOf,
  hasEnds,
  JOINTS,
  transformFeature,
  usualFacing,
  type AssemblyRelationName,
  type FacingName,
  type Feature,
  type JointName,
  type JointRecord,
  type RelationRecord,
  type Spot,
} from '@helb/core/assembly';
import { nextWay, readStanding, type JoinedSide, type Joining, type Stood } from '../making/joining.ts';
import { ownWords } from '../view/pick-words.ts';
import type { MemberPick } from '../view/placed-picks.ts';
import { newId } from './ids.ts';
import { usePlacements } from './placements.ts';
import { useProject } from './project.ts';
import { useUnits } from './units.ts';
import { useAssembly } from './assembly.ts';

export const JOINT_TITLES = Object.fromEntries(
  Object.entries(JOINTS).map(([kind, { title }]) => [kind, title]),
) as Record<JointName, string>;
export const RELATION_TITLES = Object.fromEntries(
  Object.entries(ASSEMBLY_RELATIONS).map(([kind, { title }]) => [kind, title]),
) as Record<AssemblyRelationName, string>;

/** Faces look the same way up to this cosine, and an axis stands square on one. */
const [LIKE, SQUARE] = [0.5, 0.999];
/** What no joint and no relation leads has so many freedoms. */
const FREE = 6;

/** An expression the other way round: "52" and "-52", "a + 3" and "-(a + 3)". */
function negated(expression: string): string {
  const [, within] = /^-\(([^()]*)\)$/.exec(expression) ?? [];
  if (within !== undefined) return within;
  if (/^-[\w. ]+$/.test(expression)) return expression.slice(1).trim();
  return /^[\w. ]+$/.test(expression) ? `-${expression}` : `-(${expression})`;
}

/** What is being joined: the desk asks for two things, the view shows what comes of them. */
export const useJoining = defineStore('joining', () => {
  const store = useProject();
  const { unit } = useUnits();
  const assemblyStore = useAssembly();
  const placements = usePlacements();
  const draft = shallowRef<Joining>();
  /** This one does not hold, and that was told. */
  let warned: Joining | undefined;
  /** What the desk does with a digit that is typed over the view. */
  const desk = shallowRef<{ typeNumber(text?: string): boolean }>();
  /** Which of the two is asked now. */
  const asked = computed(() => {
    if (!draft.value) return undefined;
    const [a, b] = draft.value.sides;
    if (!a) return 0;
    return b ? undefined : 1;
  });

  /**
   * Begins with what is picked, of two placements at most.
   * @param keep both stay where they are
   */
  function begin(sort: Joining['sort'], kind: Joining['kind'], keep = false): void {
    const { picked } = assemblyStore;
    const fitting = picked.filter((pick) => accepts(pick, sort));
    const second = fitting.find(({ member }) => member !== fitting[0]?.member);
    const sides: Joining['sides'] = [fitting[0] && sideOf(fitting[0]), second && sideOf(second)];
    assemblyStore.picked = [];
    store.message = '';
    set({
      sort,
      id: newId(sort === 'joint' ? 'j' : 'm'),
      kind: likelyKind({ sort, kind, sides }),
      sides,
      keep,
      flip: turnsRound(sides),
      offset: '0 mm',
      aside: ['0 mm', '0 mm'],
      angle: '0 deg',
      amount: '',
    });
  }

  /**
   * Can it be one of the two, besides what is chosen already, or begin another where both are? A repeat goes with the first
   * of its kind.
   */
  function accepts(pick: MemberPick, sort = draft.value?.sort): boolean {
    if (isRepeat(pick.member)) return false;
    const isAsked = asked.value !== undefined;
    if (isAsked && draft.value?.sides.some((side) => side?.placement === pick.member)) return false;
    // what stays where it is needs nothing of its own
    if (pick.kind === 'body') return draft.value?.keep === true && asked.value === 1;
    return sort === 'relation' ? featureOf(pick.thing, 0) !== undefined : frameOf(pick.thing) !== undefined;
  }

  const sideOf = (pick: MemberPick): JoinedSide => ({
    placement: pick.member,
    reference: pick.reference,
    thing: pick.thing,
    words: ownWords(pick, unit.value),
    spot: 'middle',
  });

  /** Two flat faces meet; all else looks the way that takes the least turn. */
  function turnsRound([a, b]: Joining['sides']): boolean {
    if (!a || !b) return false;
    if ([a, b].every(({ thing }) => 'face' in thing && planeOf(thing))) return true;
    const [u, v] = [a, b].map(({ placement, thing }) => {
      const frame = frameOf(thing);
      return frame && transformDirection(assemblyStore.memberPoses.get(placement)!, frame.z);
    });
    return u !== undefined && v !== undefined && dot3(u, v) < 0;
  }

  /** One of the two is chosen. Where both are, that takes what is made of them, and begins another with it. */
  function answer(pick: MemberPick): void {
    if (!draft.value) return;
    const at = asked.value;
    if (at === undefined) {
      const { sort, kind, keep } = draft.value;
      if (!accept()?.ok) return;
      assemblyStore.picked = [pick];
      return begin(sort, sort === 'joint' ? kind : 'coincident', keep);
    }
    const sides = [...draft.value.sides] as [JoinedSide | undefined, JoinedSide | undefined];
    sides[at] = sideOf(pick);
    set({ ...draft.value, sides, flip: turnsRound(sides), kind: likelyKind({ ...draft.value, sides }) });
  }

  /**
   * Two flat faces that look the same way now are most likely to end flush, not to meet; an axis that stands square on a
   * flat face is to do so, not to lie in it; two rims come to lie on each other.
   */
  function likelyKind({ sort, kind, sides }: Pick<Joining, 'sort' | 'kind' | 'sides'>): Joining['kind'] {
    if (sort !== 'relation' || kind !== 'coincident') return kind;
    const [a, b] = sides.map((side) => side && featureThere(side));
    if (!a || !b || a.form === 'point' || b.form === 'point') return kind;
    if ([a, b].every((feature) => feature.form === 'axis' && feature.isRim)) return 'seated';
    const alike = dot3(a.along, b.along);
    if (a.form !== b.form) return Math.abs(alike) > SQUARE ? 'perpendicular' : kind;
    const areFaces = a.form === 'plane' && sides.every((side) => 'face' in side!.thing);
    return areFaces && alike > LIKE ? 'flush' : kind;
  }

  /** It the other way round: a joint, and two flat faces that meet or end flush; undefined where there is none. */
  const turned = computed((): Partial<Joining> | undefined => {
    const { sort, kind, keep, amount, sides = [] } = draft.value ?? {};
    if (!sides.every((side) => side)) return undefined;
    if (sort === 'joint') return keep ? undefined : nextWay(draft.value!);
    if (kind === 'distance') return amount === '' ? undefined : { amount: negated(amount!) };
    if (!sides.every((side) => 'face' in side!.thing && planeOf(side!.thing))) return undefined;
    return kind === 'coincident' ? { kind: 'flush' } : kind === 'flush' ? { kind: 'coincident' } : undefined;
  });

  /** A number is about to be typed, how far apart or how far off; two things without one are kept at a distance. False where there is none. */
  function beginNumber(): boolean {
    if (!draft.value || asked.value !== undefined) return false;
    const { sort, kind, keep } = draft.value;
    if (sort === 'joint') return !keep;
    if (!ASSEMBLY_RELATIONS[kind as AssemblyRelationName].asks) change({ kind: 'distance' });
    return true;
  }

  /** Of two flat faces that look the same way the one behind comes first: to the other it is so far forwards. */
  function forwards(one: JoinedSide, other: JoinedSide): Joining['sides'] {
    const [a, b] = [featureThere(one), featureThere(other)];
    if (a?.form !== 'plane' || b?.form !== 'plane' || dot3(a.along, b.along) <= LIKE) return [one, other];
    return dot3(sub3(b.at, a.at), a.along) < 0 ? [other, one] : [one, other];
  }
  /** What is chosen, as it stands now. */
  function featureThere({ placement, thing }: JoinedSide): Feature | undefined {
    const feature = featureOf(thing, 0);
    const pose = assemblyStore.memberPoses.get(placement);
    return feature && pose && transformFeature(feature, pose);
  }

  /** The frames in which the two sides of a joint meet, where they stand now. */
  const frames = computed((): readonly Frame[] => {
    const { sort, sides = [], keep } = draft.value ?? {};
    if (sort !== 'joint') return [];
    return sides.slice(0, keep ? 1 : 2).flatMap((side) => {
      const frame = side && frameOf(side.thing, side.spot);
      const pose = side && assemblyStore.memberPoses.get(side.placement);
      return frame && pose ? [transformFrame(frame, pose)] : [];
    });
  });

  function drop(at: 0 | 1): void {
    const sides = [...draft.value!.sides] as [JoinedSide | undefined, JoinedSide | undefined];
    sides[at] = undefined;
    set({ ...draft.value!, sides });
  }

  function change(fields: Partial<Joining>): Result<void> {
    const { kind, stood } = draft.value!;
    const isNew = fields.kind === 'distance' && kind !== 'distance';
    return set({ ...draft.value!, ...fields, ...(isNew && stood && { sides: stood.forwards }) });
  }

  function turnSpot(at: 0 | 1, spot: Spot): void {
    const sides = [...draft.value!.sides] as [JoinedSide | undefined, JoinedSide | undefined];
    sides[at] = { ...sides[at]!, spot };
    set({ ...draft.value!, sides });
  }

  function set(next: Joining): Result<void> {
    const [a, b] = next.sides;
    const { stood, sides } = draft.value ?? {};
    const areSame = next.sides.every((side) => sides?.includes(side));
    if (warned) store.message = '';
    warned = undefined;
    draft.value = { ...next, stood: a && b && (areSame ? stood : standingOf(a, b)) };
    return store.draft(actions(draft.value));
  }

  const standingOf = (a: JoinedSide, b: JoinedSide): Stood => ({
    put: puttingThere([a, b]),
    loosens: immovable([a, b]),
    forwards: forwards(a, b),
    flip: turnsRound([a, b]),
  });

  /** Makes where two things are now where they are drawn. */
  function puttingThere(sides: readonly JoinedSide[]): readonly Action[] {
    const heads = [...new Set(sides.map(({ placement }) => headOf(placement)))];
    if (!assemblyStore.moved) return [];
    if (placements.canPut(heads)) return placements.puttingHere(heads);
    store.message =
      'A group is kept where its numbers tell, not where it was pulled to: put it there by its numbers first.';
    return [];
  }

  /**
   * The one of two that can not move that has to go to the other, as they were when they were chosen: that which was placed
   * later. What is held or led by others stays with them.
   */
  function immovable(sides: readonly JoinedSide[]): Id | undefined {
    const placed = store.kept?.assembly?.placements ?? {};
    const order = Object.keys(placed);
    const heads = sides.map(({ placement }) => headOf(placement)).sort((a, b) => order.indexOf(a) - order.indexOf(b));
    const [first, later] = heads as [Id, Id];
    if (first === later) return undefined;
    if (placed[later]?.held && (placed[first]?.held || freedomsOf(first) < FREE)) return later;
    const isBase = order[0] === first;
    return placed[first]?.held && freedomsOf(later) === 0 && !isBase ? first : undefined;
  }
  /** How many freedoms are left to it, as it is joined to others now: that of its members which has most. */
  const freedomsOf = (id: Id): number =>
    Math.max(
      ...placements.membersOf(id).map(({ body }) => assemblyStore.assembled?.freedoms.bodies[body]?.count ?? FREE),
    );
  const loosened = computed((): Id | undefined => draft.value?.stood?.loosens);
  const lettingGo = (): Action[] =>
    loosened.value === undefined
      ? []
      : [{ command: 'placement.set', input: { id: loosened.value, fields: { held: false } } }];

  /** How two flat faces look in the relation that is being made; undefined for all else. */
  const facing = computed((): FacingName | undefined => {
    const { sort, sides, kind, facing } = draft.value ?? {};
    const flat = sort === 'relation' && sides!.every((side) => side && planeOf(side.thing));
    return flat ? (facing ?? usualFacing(kind as AssemblyRelationName)) : undefined;
  });

  /** The gesture that makes it; none while something is missing. */
  function actions({ sort, id, kind, sides, keep, flip, offset, aside, angle, amount, stood }: Joining): Action[] {
    const [a, b] = sides;
    if (!a || !b) return [];
    if (sort === 'relation') {
      const { initial, title } = ASSEMBLY_RELATIONS[kind as AssemblyRelationName];
      const record: RelationRecord = {
        name: freeName(title),
        kind: kind as AssemblyRelationName,
        a: { placement: a.placement, on: a.reference },
        b: { placement: b.placement, on: b.reference },
        ...(initial === undefined ? {} : { amount: amount || initial }),
        ...(facing.value ? { facing: facing.value } : {}),
      };
      return [...lettingGo(), { command: 'assembly-relation.add', input: { id, record } }];
    }
    const record: JointRecord = {
      name: freeName(JOINTS[kind as JointName].title),
      kind: kind as JointName,
      a: { placement: a.placement, on: a.reference, spot: a.spot },
      b: keep ? { placement: b.placement } : { placement: b.placement, on: b.reference, spot: b.spot },
      flip,
      offset,
      ...(aside.some((text) => text !== '0 mm') ? { aside: [...aside] } : {}),
      angle,
    };
    return [...(keep ? (stood?.put ?? []) : []), ...lettingGo(), { command: 'joint.add', input: { id, record } }];
  }

  function freeName(title: string): string {
    const { joints = {}, relations = {} } = store.kept?.assembly ?? {};
    const taken = new Set([...Object.values(joints), ...Object.values(relations)].map(({ name }) => name));
    const word = title.charAt(0).toUpperCase() + title.slice(1);
    let k = 1;
    while (taken.has(`${word} ${k}`)) k++;
    return `${word} ${k}`;
  }

  /** What is wrong with it where everything is chosen, as the engine found it. */
  const wrong = computed(() => (draft.value ? assemblyStore.troubleOf(draft.value.id) : ''));

  function accept(): Result<void> | undefined {
    if (!draft.value) return undefined;
    const made = actions(draft.value);
    if (made.length === 0) {
      store.message =
        asked.value === 0
          ? 'Choose the first of the two things in the view.'
          : 'Choose the second, on another placement.';
      return undefined;
    }
    // what does not hold is told first, and kept only by saying so again
    if (wrong.value && warned !== draft.value) {
      warned = draft.value;
      store.message = `${wrong.value} Or accept it again to keep it all the same.`;
      return undefined;
    }
    const done = store.act(made);
    if (done.ok) leave();
    return done;
  }

  /** It is made, or dropped: nothing of it is kept. */
  function leave(): void {
    if (!draft.value) return;
    const { id } = draft.value;
    clear();
    dropStanding(id);
  }
  function clear(): void {
    draft.value = undefined;
    store.draft([]);
  }

  // somebody goes elsewhere: it stands as it was, also over a reload, until it is gone on with or dropped
  const standing = shallowRef<readonly Joining[]>([]);
  let key = '';
  /** A project was opened: what was left in it stands there. */
  function comeIn(project: string): void {
    key = `helb joining ${project}`;
    standing.value = readStanding(sessionStorage.getItem(key));
  }
  function stand(all: readonly Joining[]): void {
    standing.value = all;
    sessionStorage.setItem(key, JSON.stringify(all));
  }
  /** Of what is being made so much as was chosen. */
  function keepStanding(): void {
    if (!draft.value?.sides.some((side) => side)) return;
    // how they stood is looked at anew
    const { stood: _, ...left } = draft.value;
    stand([...standing.value.filter(({ id }) => id !== left.id), left]);
  }
  function leaveStanding(): void {
    keepStanding();
    if (draft.value) clear();
  }
  function resume(id: Id): void {
    const found = standing.value.find((one) => one.id === id);
    leaveStanding();
    dropStanding(id);
    if (found) set(found);
  }
  /** What it is and what is chosen: "revolute: Arm and …". */
  const titleOf = ({ sort, kind, sides }: Joining): string => {
    const title = sort === 'joint' ? JOINT_TITLES[kind as JointName] : RELATION_TITLES[kind as AssemblyRelationName];
    return `${title}: ${sides.map((side) => (side ? assemblyStore.nameOf(side.placement) : '…')).join(' and ')}`;
  };
  function dropStanding(id: Id): void {
    if (standing.value.some((one) => one.id === id)) stand(standing.value.filter((one) => one.id !== id));
  }
  /** Those whose placements are all there still. */
  const stands = computed(() => {
    const placements = store.kept?.assembly?.placements ?? {};
    return standing.value.filter(({ sides }) => sides.every((side) => !side || placements[headOf(side.placement)]));
  });

  // a placement that is gone can not be joined
  watch(
    () => store.kept?.assembly?.placements,
    (placements) => {
      const gone = draft.value?.sides.some((side) => side && !placements?.[headOf(side.placement)]);
      if (gone) leave();
    },
  );

  const ends = (side: JoinedSide): boolean => hasEnds(side.thing);

  return {
    draft,
    desk,
    asked,
    facing,
    turned,
    frames,
    beginNumber,
    loosened,
    wrong,
    begin,
    accepts,
    answer,
    drop,
    change,
    turnSpot,
    accept,
    leave,
    ends,
    comeIn,
    stands,
    titleOf,
    keepStanding,
    leaveStanding,
    resume,
    dropStanding,
  };
});
