import type { Coordinate } from '../naming/index.ts';
import { ASSEMBLY_LIMITS, JOINTS, type Assembly } from '../assembly/index.ts';
import type { Id } from '../records/index.ts';
import { issue, type Issue } from '../result/index.ts';
import { isPlaced } from './placed.ts';
import { danglingStudy } from './studied.ts';
import type { Project } from './schema.ts';

/** What stands in an assembly is there: parts and groups that are placed, placements that are joined, joints that are tied. */
export function checkAssemblies(project: Project): Issue | undefined {
  const groups = Object.entries(project.groups ?? {});
  for (const [id] of groups) {
    const loop = loopFrom(project, id, []);
    if (loop) return loop;
  }
  for (const assembly of [project.assembly, ...groups.map(([, group]) => group)]) {
    const wrong = assembly && checkAssembly(project, assembly);
    if (wrong) return wrong;
  }
  const dangling = danglingStudy(project);
  return dangling && issue('study.dangling', { name: dangling.name });
}

/** A group that holds itself, in whatever depth, told by the names on the way. */
function loopFrom({ groups = {} }: Project, id: Id, above: readonly Id[]): Issue | undefined {
  if (above.includes(id))
    return issue('group.loop', { loop: [...above.slice(above.indexOf(id)), id].map((one) => groups[one]!.name) });
  if (above.length >= ASSEMBLY_LIMITS.depth) return issue('group.deep', { most: ASSEMBLY_LIMITS.depth });
  for (const { of } of Object.values(groups[id]?.placements ?? {})) {
    const wrong = 'group' in of ? loopFrom({ groups } as Project, of.group, [...above, id]) : undefined;
    if (wrong) return wrong;
  }
  return undefined;
}

function checkAssembly(project: Project, assembly: Assembly): Issue | undefined {
  const { placements, joints, relations, ratios, traces, pressed, contacts = {} } = assembly;
  // findings are told by id alone
  const ids = [placements, joints, relations, ratios, traces].flatMap((records) => Object.keys(records));
  const doubled = ids.find((id, k) => ids.indexOf(id) !== k);
  if (doubled !== undefined) return issue('id.taken', { id: doubled });
  for (const { name, of } of Object.values(placements))
    if ('part' in of ? !project.parts[of.part] : !project.groups?.[of.group]) return issue('placement.of', { name });
  for (const { name, repeat } of Object.values(placements))
    if (repeat?.layout === 'round' && !isPlaced(project, assembly, repeat.about.placement))
      return issue('placement.dangling', { name });
  for (const { name, kind, a, b, limits = {}, rest = {} } of Object.values(joints)) {
    if (a.placement === b.placement) return issue('joint.self');
    if (![a, b].every(({ placement }) => isPlaced(project, assembly, placement)))
      return issue('placement.dangling', { name });
    const leaves: readonly Coordinate[] = JOINTS[kind].leaves;
    const odd = [...Object.keys(limits), ...Object.keys(rest)].find((key) => !leaves.includes(key as Coordinate));
    if (odd !== undefined) return issue('joint.coordinate', { name, kind: JOINTS[kind].title, coordinate: odd });
  }
  for (const { name, a, b } of [...Object.values(relations), ...named(pressed)]) {
    const [p, q] = [a, b].map((side) => (typeof side === 'string' ? side : side.placement)) as [string, string];
    if (p === q) return issue('relation.self');
    if (![p, q].every((path) => isPlaced(project, assembly, path))) return issue('placement.dangling', { name });
  }
  for (const { name, first, second } of Object.values(ratios)) {
    if (first.joint === second.joint && first.coordinate === second.coordinate) return issue('ratio.self', { name });
    for (const { joint, coordinate } of [first, second]) {
      const of = joints[joint];
      if (!of || !(JOINTS[of.kind].leaves as readonly Coordinate[]).includes(coordinate))
        return issue('ratio.joint', { name });
    }
    if (first.coordinate !== 'turn' && second.coordinate === 'turn') return issue('ratio.order', { name });
  }
  for (const { a, b } of Object.values(contacts)) {
    if (a !== undefined && a === b) return issue('relation.self');
    if (![a, b].every((path) => path === undefined || isPlaced(project, assembly, path)))
      return issue('placement.dangling', { name: 'A pair' });
  }
  for (const { name, placement } of Object.values(traces))
    if (!isPlaced(project, assembly, placement)) return issue('placement.dangling', { name });
  return undefined;
}

const named = (pressed: Assembly['pressed']) => Object.values(pressed).map((pair) => ({ name: 'A pair', ...pair }));
