import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import {
  coordinateKey,
  coordinateOf,
  copyName,
  copyOfBody,
  edgeName,
  faceName,
  facesOfName,
  headOf,
  idsAlong,
  instanceOfFace,
  isAngle,
  isAtOrWithin,
  isCalled,
  isFaceOf,
  isNested,
  isRepeat,
  jointOf,
  kinOfFace,
  kinOfName,
  numberedBody,
  numberedEdge,
  ownRoleOf,
  idOfName,
  pieceBeside,
  pieceNumber,
  placementOfMember,
  repeatOf,
  roleOfFace,
  stepOfFace,
  tailOf,
  unsplit,
  vertexName,
  within,
  withoutNumber,
  type Coordinate,
} from './index.ts';

const id = fc.stringMatching(/^[a-z0-9][a-z0-9-]{0,10}$/);
const role = fc.constantFrom('side', 'start', 'end', 'round', 'rim', 'inside');
const whole = fc.oneof(
  fc.tuple(id, role).map(([step, part]) => faceName(step, part)),
  fc.tuple(id, role, id).map(([step, part, from]) => faceName(step, part, from)),
);
const face = fc.oneof(
  whole,
  fc.tuple(whole, fc.integer({ min: 1, max: 40 })).map(([of, n]) => pieceNumber(of, n)),
  fc.tuple(whole, fc.array(whole, { minLength: 1, maxLength: 3 })).map(([of, beside]) => pieceBeside(of, beside)),
);
const path = fc.array(id, { minLength: 1, maxLength: 4 }).map((ids) => ids.slice(1).reduce(within, ids[0]!));

test('what is written into the name of a face is read from it', () => {
  fc.assert(
    fc.property(id, role, id, fc.integer({ min: 1, max: 99 }), (step, part, from, n) => {
      const name = faceName(step, part, from);
      expect([stepOfFace(name), roleOfFace(name), ownRoleOf(name)]).toEqual([step, part, part]);
      expect(isFaceOf(name, step, part) && isFaceOf(name, step) && !isFaceOf(name, `${step}x`)).toBe(true);
      for (const piece of [pieceNumber(name, n), pieceBeside(name, [name, step])]) {
        expect(unsplit(piece)).toBe(name);
        expect([stepOfFace(piece), roleOfFace(piece)]).toEqual([step, part]);
      }
    }),
  );
});

test('a face of a copy belongs to the step that copies, and plays the part of what it is a copy of', () => {
  fc.assert(
    fc.property(id, fc.integer({ min: 1, max: 99 }).map(String), id, role, id, (step, instance, of, part, from) => {
      const name = copyName(step, instance, faceName(of, part, from));
      expect([stepOfFace(name), ownRoleOf(name), roleOfFace(name)]).toEqual([step, instance, part]);
      expect(instanceOfFace(name)).toBe(copyOfBody(step, instance));
      // and of a copy of a copy
      const again = copyName('again', instance, name);
      expect([stepOfFace(again), roleOfFace(again)]).toEqual(['again', part]);
    }),
  );
});

test('an edge and a vertex are named after their faces, in whatever order these are told', () => {
  fc.assert(
    fc.property(fc.uniqueArray(face, { minLength: 2, maxLength: 4 }), fc.integer({ min: 1, max: 9 }), (faces, n) => {
      for (const nameOf of [edgeName, vertexName]) {
        const name = nameOf(faces);
        expect(facesOfName(name)).toEqual([...faces].sort());
        expect(nameOf([...faces].reverse())).toBe(name);
        expect(facesOfName(numberedEdge(name, n))).toEqual([...faces].sort());
        expect(isCalled(name, name)).toBe(true);
      }
      expect(edgeName(faces)).not.toBe(vertexName(faces));
      expect(kinOfName(edgeName(faces))).toBe(edgeName(faces.map(kinOfFace)));
    }),
  );
  expect(facesOfName('s1/end')).toEqual(['s1/end']);
});

test('a side of several lines is found by each of them, an edge of it too, and its number counts', () => {
  expect(isCalled('s1/side/a', 's1/side/a,b')).toBe(true);
  expect(isCalled('s1/side/c', 's1/side/a,b')).toBe(false);
  expect(isCalled('s1/end | s1/side/b', 's1/end | s1/side/a,b')).toBe(true);
  expect(isCalled('s1/end | s1/side/b ~2', 's1/end | s1/side/a,b ~2')).toBe(true);
  expect(isCalled('s1/end | s1/side/b ~1', 's1/end | s1/side/a,b ~2')).toBe(false);
});

test('a body of several has a number, and is the same body without it', () => {
  fc.assert(
    fc.property(id, fc.integer({ min: 1, max: 99 }), (name, n) => {
      expect(withoutNumber(numberedBody(name, n))).toBe(name);
      expect(withoutNumber(name)).toBe(name);
    }),
  );
});

test('a path leads from the outside in, and repeats are of what is placed', () => {
  fc.assert(
    fc.property(id, path, fc.integer({ min: 2, max: 99 }), (group, inner, n) => {
      const all = within(group, inner);
      expect(within(undefined, inner)).toBe(inner);
      expect([headOf(all), tailOf(all)]).toEqual([group, inner]);
      expect(idsAlong(all)).toEqual([group, ...idsAlong(inner)]);
      expect(isNested(all) && !isNested(group) && tailOf(group) === undefined).toBe(true);
      expect(isAtOrWithin(all, group) && isAtOrWithin(all, all) && !isAtOrWithin(`${group}x`, group)).toBe(true);
      const copy = repeatOf(all, group, n);
      expect([isRepeat(copy), isRepeat(all), placementOfMember(copy)]).toEqual([true, false, all]);
    }),
  );
});

test('a coordinate is one of a joint, an angle or a length', () => {
  const coordinate = fc.constantFrom<Coordinate>('turn', 'slide', 'slide x', 'slide y');
  fc.assert(
    fc.property(path, coordinate, (joint, which) => {
      const key = coordinateKey(joint, which);
      expect([jointOf(key), coordinateOf(key), isAngle(key)]).toEqual([joint, which, which === 'turn']);
    }),
  );
});

describe('nobody else writes or reads names', () => {
  const ROOT = join(import.meta.dirname, '../../../..');
  const FOLDERS = ['packages/core/src', 'packages/kernel/src', 'packages/engine/src', 'apps/web/src'];
  /** How names are put together or taken apart by hand. */
  const BY_HAND: readonly RegExp[] = [
    /(split|join)\(' \| '\)/,
    /[`'/](side|start|end|rim|round|corner|inside|cap|slab|bevel|cut)\/\$\{/,
    /\}\/(side|start|end|rim|round|corner|inside|cap|slab|bevel|face)\b/,
    /\.includes\('[:#@/]'\)/,
    /\.split\(('[#@]'|\/\[[@#/]+\]\/)\)/,
    /startsWith\(`\$\{[^}]*\}\/?(\$\{[^}]*\}\/?)?`\)/,
    /endsWith\('( turn|turn)'\)/,
    /indexOf\('[/#@]'\)/,
    /`\$\{(path|placement|member|group|outer)\}\//,
    /replace\(\/(\[@#\]|#\\d|:\\d)/,
    /(name|path|placement|member|id)\.split\('\/'\)/,
  ];
  /** Lines that look like it and are about something else. */
  const OTHERS: readonly RegExp[] = [
    // the cells of a tolerance frame, in words
    /cells\.map\(rowWords\)\.join/,
    // fields of a step, keys of caches
    /field\?\.startsWith\(`\$\{line\.field\}\.`\)/,
    /key\.startsWith\(`\$\{(body|session)\} `\)/,
  ];

  test.each(FOLDERS)('%s', (folder) => {
    const found = readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.(ts|vue)$/.test(file) && !file.endsWith('.test.ts') && !file.startsWith('naming/'))
      .flatMap((file) =>
        readFileSync(join(ROOT, folder, file), 'utf8')
          .split('\n')
          .flatMap((line, k) =>
            BY_HAND.some((hand) => hand.test(line)) && !OTHERS.some((other) => other.test(line))
              ? [`${file}:${k + 1} ${line.trim()}`]
              : [],
          ),
      );
    expect(found).toEqual([]);
  });
});

test('ids of names are ids, the same each time, and differ as the names do', () => {
  // the published hash of "a" is af63dc4c8601ec8c
  expect(idOfName('a')).toBe(`n${0xaf63dc4c8601ec8cn.toString(36)}`);
  const names = Array.from({ length: 5000 }, (_, k) => `s${k % 70}/end | s${k % 71}/side/l${k}`);
  expect(new Set(names.map(idOfName)).size).toBe(5000);
  names.forEach((name) => expect(idOfName(name)).toMatch(/^n[a-z0-9]{1,13}$/));
});
