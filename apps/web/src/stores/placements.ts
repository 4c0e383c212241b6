import { defineStore } from 'pinia';
import { computed } from 'vue';
import {
  boxRound,
  ANGLE,
  type Dimension,
  formatQuantity,
  LENGTH,
  type LengthUnit,
  transformBox,
  type Action,
  type Id,
  type RigidTransform,
  type Coordinate,
  coordinateKey,
  headOf,
  placementOfMember,
} from '@helb/core';
import {
  asDrawn,
  measured,
  memberPose,
  originOf,
  placementOf,
  triple,
  turnsOf,
  type Assembly,
  type Placement,
  type Triple,
} from '@helb/core/assembly';
import { newId } from './ids.ts';
import { useProject } from './project.ts';
import { useUnits } from './units.ts';
import { typedAs, useAssembly } from './assembly.ts';

/** The numbers of a placement typed anew where they have changed from where they were. */
export const replaced = (
  { at, turn }: Placement,
  is: RigidTransform,
  was: RigidTransform,
  unit: LengthUnit,
  digits = 6,
) => {
  const typed = (dimension: Dimension) => (amount: number) => formatQuantity({ amount, dimension }, unit, digits);
  return {
    at: retyped(at, originOf(is), originOf(was), typed(LENGTH)),
    turn: retyped(turn, turnsOf(is), turnsOf(was), typed(ANGLE)),
  };
};

function retyped(
  typed: Triple,
  is: readonly number[],
  was: readonly number[],
  words: (amount: number) => string,
): Triple {
  const text = (axis: keyof Triple, k: number) => (Math.abs(is[k]! - was[k]!) < 1e-6 ? typed[axis] : words(is[k]!));
  const next = triple(text('x', 0), text('y', 1), text('z', 2));
  return (Object.keys(typed) as (keyof Triple)[]).every((axis) => next[axis] === typed[axis]) ? typed : next;
}

/** What is not there any more: joints, relations, ratios, traces, and the repeats of what stays, by their names. */
const goneOf = (before: Assembly, after: Assembly | undefined): string[] => [
  ...(['joints', 'relations', 'ratios', 'traces'] as const).flatMap((kind) =>
    Object.entries(before[kind]).flatMap(([id, { name }]) => (after?.[kind][id] ? [] : [name])),
  ),
  ...Object.entries(before.placements).flatMap(([id, { name, repeat }]) => {
    const left = after?.placements[id];
    return repeat && left && !left.repeat ? [`the repeat of ${name}`] : [];
  }),
];

/** How far a new placement stands from the others, mm. */
const BESIDE = 20;

/** What can be done with what is placed. */
export const usePlacements = defineStore('placements', () => {
  const store = useProject();
  const assemblyStore = useAssembly();

  const records = computed(() => Object.entries(store.project?.assembly?.placements ?? {}));
  /** The placements of the assembly itself of which something is picked. */
  const chosen = computed(() => [
    ...new Set(assemblyStore.picked.map(({ member }) => headOf(placementOfMember(member)))),
  ]);
  const only = computed(() => (chosen.value.length === 1 ? chosen.value[0] : undefined));
  const record = computed((): Placement | undefined =>
    only.value === undefined ? undefined : store.project?.assembly?.placements[only.value],
  );

  /** Where a part is placed in the whole itself. */
  const ofPart = (part: Id | undefined) =>
    records.value.flatMap(([id, { name, of, held }]) => ('part' in of && of.part === part ? [{ id, name, held }] : []));

  /** Fixes placements in space, or lets them move again. */
  function hold(ids: readonly Id[], held: boolean): void {
    store.act(ids.map((id) => ({ command: 'placement.set', input: { id, fields: { held } } })));
  }

  /** The members that a placement comes to: itself, what is in its group, its repeats. */
  const membersOf = (id: Id) =>
    (assemblyStore.assembled?.members ?? []).filter((member) => headOf(placementOfMember(member.id)) === id);

  function freeName(base: string): string {
    const taken = new Set(records.value.map(([, { name }]) => name));
    if (!taken.has(base)) return base;
    let k = 2;
    while (taken.has(`${base} ${k}`)) k++;
    return `${base} ${k}`;
  }

  const { unit } = useUnits();
  /** A place along x, in whole millimetres or quarters of an inch. */
  const besides = (mm: number): string => {
    const step = unit.value === 'in' ? 25.4 / 4 : 1;
    return formatQuantity({ amount: Math.ceil(mm / step - 1e-9) * step, dimension: LENGTH }, unit.value);
  };

  /** The gesture that places a part beside everything else. */
  function placing(of: Placement['of'], name: string): Action {
    const boxOf = (part: Id) => assemblyStore.built?.parts[part]?.totals.box_mm ?? undefined;
    // the boxes of turned boxes are larger than what is in them: here that does no harm
    const box = boxRound(
      (assemblyStore.assembled?.members ?? []).flatMap((member) => {
        const box = boxOf(member.part);
        return box && assemblyStore.pose ? [transformBox(box, memberPose(member, assemblyStore.pose))] : [];
      }),
    );
    const own = 'part' in of ? boxOf(of.part) : undefined;
    const first = records.value.length === 0;
    const placed = placementOf(freeName(name), of, first);
    const x = box ? besides(box.high[0] - (own?.low[0] ?? 0) + BESIDE) : besides(0);
    return {
      command: 'placement.add',
      input: { id: newId('p'), record: { ...placed, at: { ...placed.at, x: first ? besides(0) : x } } },
    };
  }

  /** The gesture that places a new part where it is drawn: in the space of all. */
  const drawnInPlace = (part: Id, name: string): Action => ({
    command: 'placement.add',
    input: { id: newId('p'), record: placementOf(freeName(name), { part }, true) },
  });

  async function place(of: Placement['of'], name: string): Promise<void> {
    const { id } = store;
    await assemblyStore.together();
    if (store.id === id) store.act([placing(of, name)]);
  }

  /** A new part that is the opposite hand of another, of the same material, placed beside everything else. */
  function placeOpposite(part: Id): void {
    const { name, colour, material } = store.kept!.parts[part]!;
    const [id, title] = [newId('part'), `${name}, opposite hand`.slice(0, 60)];
    const step = { kind: 'opposite-hand', name: 'Opposite hand', of: part } as const;
    store.act([
      { command: 'part.add', input: { id, name: title, colour } },
      ...(material ? [{ command: 'part.material', input: { id, material } } as const] : []),
      { command: 'step.add', input: { part: id, id: newId('s'), step } },
      placing({ part: id }, title),
    ]);
  }

  const set = (id: Id, fields: Partial<Placement>, without?: string[]) =>
    store.act([{ command: 'placement.set', input: { id, fields, ...(without ? { without } : {}) } }]);

  function remove(ids: readonly Id[]): void {
    assemblyStore.picked = [];
    const before = store.kept?.assembly;
    const done = store.act([{ command: 'placement.remove', input: { ids: [...ids] } }]);
    const taken = done.ok && before ? goneOf(before, store.kept?.assembly) : [];
    if (taken.length > 0) store.message = `Taken away with it, since it stood on it: ${taken.join(', ')}.`;
  }

  function gather(ids: readonly Id[]): void {
    assemblyStore.picked = [];
    const count = Object.keys(store.kept?.groups ?? {}).length + 1;
    const done = store.act([
      {
        command: 'group.gather',
        input: { id: newId('g'), name: `Group ${count}`, placement: newId('p'), of: [...ids] },
      },
    ]);
    const label = store.view?.stacks.undo.at(-1)?.label ?? '';
    const lost = done.ok && / without (.*)$/.exec(label)?.[1];
    if (lost) store.message = `${lost} did not come along: it ties the inside of the group to the outside.`;
  }

  /** Where a group stands is told by its numbers alone. */
  const canPut = (ids: readonly Id[]): boolean =>
    ids.every((id) => 'part' in (store.kept?.assembly?.placements[id]?.of ?? {}));

  /**
   * Makes where placements are now where the design puts them: numbers that have not changed stay as they were typed, and
   * the rest values of their joints become what these are now.
   */
  function puttingHere(ids: readonly Id[]): Action[] {
    const [all, now, assembly] = [assemblyStore.assembled, assemblyStore.pose, store.kept?.assembly];
    if (!all || !now || !assembly) return [];
    const moved = ids.flatMap((id): Action[] => {
      const member = membersOf(id)[0];
      const placed = assembly.placements[id];
      if (!member || !placed) return [];
      const [is, was] = [memberPose(member, now), all.mechanism.bodies[member.body]!.pose];
      const fields = replaced(placed, is, was, unit.value);
      const stays = fields.at === placed.at && fields.turn === placed.turn;
      return stays ? [] : [{ command: 'placement.set', input: { id, fields } }];
    });
    const put = new Set(ids.flatMap((id) => membersOf(id).map(({ body }) => body)));
    const drawn = all.mechanism.bodies.map(({ pose }, body) => (put.has(body) ? now.poses[body]! : pose));
    const rested = all.mechanism.joints.flatMap((joint): Action[] => {
      const { rest = {}, b } = assembly.joints[joint.id] ?? {};
      const given = Object.keys(rest) as Coordinate[];
      if (given.length === 0 || ![joint.a, joint.b].some(({ body }) => put.has(body))) return [];
      // what is held as drawn counts from where it is drawn now
      const next = b && 'on' in b ? joint : { ...joint, b: asDrawn(joint, drawn) };
      const found = measured({ ...all.mechanism, joints: [next] }, now.poses, now.coordinates);
      const texts = given.map((coordinate) => {
        const key = coordinateKey(joint.id, coordinate);
        return [coordinate, typedAs(key, found.get(key) ?? 0, unit.value)] as const;
      });
      return [{ command: 'joint.set', input: { id: joint.id, fields: { rest: Object.fromEntries(texts) } } }];
    });
    return [...moved, ...rested];
  }

  function putHere(ids: readonly Id[]): void {
    if (store.act(puttingHere(ids)).ok) assemblyStore.reset();
  }

  /** Takes a placed group apart: what is in it stands where it stood. */
  function dissolve(id: Id): void {
    assemblyStore.picked = [];
    store.act([{ command: 'group.dissolve', input: { placement: id } }]);
  }

  return {
    records,
    chosen,
    only,
    record,
    membersOf,
    ofPart,
    hold,
    drawnInPlace,
    placing,
    place,
    placeOpposite,
    set,
    remove,
    gather,
    dissolve,
    canPut,
    puttingHere,
    putHere,
  };
});
