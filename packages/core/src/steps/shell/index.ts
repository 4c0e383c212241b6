import { fail, ok, type Result } from '../../result/index.ts';
import type { BodyHandle } from '../../kernel-port/index.ts';
import type { Vec3 } from '../../math/index.ts';
import { LENGTH } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { furtherUp, unlessSized } from '../earlier.ts';
import { facesByBody } from '../edges.ts';
import { largest, roundedDown } from '../fillet/index.ts';
import { choice, number, picks } from '../fields/index.ts';
import { pullOverFace } from '../pulls.ts';
import { skinPieces } from './skin.ts';
import { tightestPlace } from './tightest.ts';

const fields = {
  open: picks('open faces', 'face', { max: 100, many: 'faces' }),
  wall: number('wall', { asks: LENGTH, min: 1e-3, max: 1e4, initial: '2 mm' }),
  side: choice('side', { inwards: 'inwards', outwards: 'outwards' }, 'inwards'),
  /** Their outer faces. */
  others: picks('walls of another thickness', 'face', {
    min: 0,
    max: 100,
    many: 'walls',
    when: ({ side }) => side === 'inwards',
  }),
  other: number('their thickness', {
    asks: LENGTH,
    min: 1e-3,
    max: 1e4,
    initial: '3 mm',
    when: ({ side, others }) => side === 'inwards' && (others as readonly unknown[]).length > 0,
  }),
};

export const shell = changing('shell', {
  title: 'Shell',
  verb: {
    key: 'E',
    likely: ['face'],
    says: 'Hollows a body out to walls of one thickness, open at the faces that are picked.',
  },
  fields,
  sentence: 'Shell, open at {open}, wall {wall} {side}[?; {others} {other}]',
  pulls: ({ open, side }, seen) => pullOverFace('wall', open, seen, side === 'inwards' ? 1 : -1),
  inputs: ({ open, wall, side, others, other }, { step }) =>
    ok({
      hollows: facesByBody(open),
      wall: side === 'inwards' ? wall : -wall,
      others: facesByBody(others),
      other,
      step,
    }),
  build: ({ hollows, wall, others, other, step }, before, kernel) =>
    changedBodies(
      before,
      hollows.map(({ body, faces }) => ({
        body,
        make(handle) {
          const topology = kernel.topology(handle);
          const skins = skinPieces(topology, []).length;
          const sized = (size: number) => {
            const made = kernel.shell({
              body: handle,
              open: faces,
              wall: Math.sign(wall) * size,
              others: (others.find((group) => group.body === body)?.faces ?? []).map((face) => ({
                face,
                wall: (other * size) / Math.abs(wall),
              })),
              step,
            });
            if (!made.ok || skinPieces(kernel.topology(made.value), []).length <= skins) return made;
            // a hollow with a skin of its own opens nowhere
            kernel.release(made.value);
            return fail('kernel.wrong');
          };
          const made = sized(Math.abs(wall));
          if (made.ok || made.issue.code === 'kernel.gone') return made;
          const [, loose] = skinPieces(topology, faces);
          if (loose) return fail('shell.loose', { place: loose[0]!.centre });
          const tight = wall > 0 ? tightestPlace(kernel.mesh(handle, MESH), topology, faces) : undefined;
          // walls of free faces take many seconds each: few are tried
          const rounds = topology.faces.some(({ surface }) => surface.form === 'free') ? 1 : ROUNDS;
          const most = mostOf(sized, Math.abs(wall), tight?.radius ?? Infinity, rounds, kernel.release.bind(kernel));
          const place = tight && tight.radius < 2 * most ? { place: tight.at } : {};
          const isMost = rounds === ROUNDS || (tight !== undefined && most > 0.99 * tight.radius);
          return fail('shell.wall', { most, found: isMost ? 'most' : 'one', ...place });
        },
      })),
      kernel,
    ),
  yields: unlessSized('shell.wall', 'shell.loose'),
  words: {
    'shell.loose': (f, length) =>
      `What stands on an open face or is sunk into it, at ${length(f['place'] as Vec3, 1)}, would hang in the air: nothing joins its walls to the others. ${furtherUp(f, 'Open its faces as well, or put the shell before it.')}`,
    'shell.wall': (f, length) =>
      Number(f['most']) > 0
        ? `The walls can not be that thick. ${f['found'] === 'one' ? `${length(f['most'] as number, 3)} builds` : `About ${length(f['most'] as number, 3)} is the most that builds`}.${f['place'] ? ` It gets tight at ${length(f['place'] as Vec3, 1)}.` : ''}`
        : `The walls can not be that thick, and none that are thinner were found. ${furtherUp(f, 'Choose other open faces, or cut a smaller body away.')}`,
  },
});

/** How finely the skin is looked at to find where it gets tight. */
const MESH = { deflection: 0.5, angle: 0.3 };
/** The share of the tightest place that is tried first. */
const NEARLY = 0.995;

/** How often what is left is halved while the most that builds is looked for. */
const ROUNDS = 4;
/** And what more is tried where that builds: a corner that vanishes leaves walls as they are. */
const BEYOND = 1.05;

/** The thickest walls that build, less than so thick: nearly as thick as there is room, or as is found. */
function mostOf(
  sized: (size: number) => Result<BodyHandle>,
  asked: number,
  room: number,
  rounds: number,
  release: (body: BodyHandle) => void,
): number {
  const builds = (size: number): boolean => {
    const made = sized(size);
    if (made.ok) release(made.value);
    return made.ok;
  };
  if (room >= asked) return largest(sized, asked, release, 0, rounds);
  if (!builds(NEARLY * room)) return largest(sized, NEARLY * room, release, 0, rounds);
  if (BEYOND * room < asked && builds(BEYOND * room)) return largest(sized, asked, release, BEYOND * room, rounds);
  return roundedDown(sized, NEARLY * room, release);
}
