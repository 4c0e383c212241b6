import { explain, fitting, locate, needs, referenceWords, ruleWords, widened, type Rule } from '../index.ts';
import type { EdgeFacts, FaceFacts, Reference, Thing, Topology, Turn, Vec3 } from '../index.ts';

const flat = (name: string): FaceFacts => ({
  name,
  surface: { form: 'plane', origin: [0, 0, 0], normal: [0, 0, 1] },
  area: 1,
  centre: [0, 0, 0],
});
const edge = (a: string, b: string, to: Vec3, turn: Turn): EdgeFacts => ({
  name: [a, b].sort().join(' | '),
  faces: [a, b].sort(),
  curve: { form: 'line', from: [0, 0, 0], to },
  length: 1,
  middle: [0, 0, 0],
  turn,
});

/** A plate p with two sides that meet, and a wall w on it. */
const FACES = ['p/end@w/side/a', 'p/side/l1', 'p/side/l2', 'w/side/a', 'w/end'];
const EDGES = [
  edge('p/end@w/side/a', 'p/side/l1', [1, 0, 0], 'outer'),
  edge('p/end@w/side/a', 'p/side/l2', [0, 1, 0], 'outer'),
  edge('p/side/l1', 'p/side/l2', [0, 0, 1], 'outer'),
  edge('p/end@w/side/a', 'w/side/a', [1, 0, 0], 'inner'),
  edge('w/end', 'w/side/a', [1, 0, 0], 'outer'),
  edge('p/side/l2', 'p/round/x', [0, 0, 1], 'smooth'),
];
const BODY: Topology = { name: 'p', faces: FACES.map(flat), edges: EDGES, vertices: [] };
const world = { bodies: [BODY], datum: () => undefined, drawn: () => undefined };

const rule = (fields: Partial<Rule>): Rule => ({ to: 'rule', gives: 'edges', ...fields });
const names = (fields: Partial<Rule>) =>
  fitting(rule(fields), [BODY]).map((thing) =>
    'edge' in thing ? thing.edge.name : 'face' in thing ? thing.face.name : '',
  );
const nameOf = (step: string) => ({ p: 'Plate', w: 'Wall' })[step] ?? '?';

test.each<[string, Partial<Rule>, number[]]>([
  ['of a step, also those that it shares with others', { of: { step: 'w' } }, [3, 4]],
  [
    'between the sides and the end of a step',
    { of: { step: 'p', role: 'side' }, and: { step: 'p', role: 'end' } },
    [0, 1],
  ],
  ['between two steps, whichever is named first', { of: { step: 'w' }, and: { step: 'p' } }, [3]],
  ['that turn in', { turn: 'inner' }, [3]],
  ['that run along an axis', { along: 'x', turn: 'outer' }, [0, 4]],
  ['that stand upright, of a step', { along: 'z', of: { step: 'p' } }, [2]],
])('edges %s; never smooth ones', (_, fields, which) => {
  expect(names(fields)).toEqual(which.map((k) => EDGES[k]!.name));
});

test('faces of a step, or those in one role of it, split or not', () => {
  expect(names({ gives: 'faces', of: { step: 'p' } })).toEqual(FACES.slice(0, 3));
  expect(names({ gives: 'faces', of: { step: 'p', role: 'end' } })).toEqual(FACES.slice(0, 1));
});

test('is located as all that fits; where nothing does any more that is told', () => {
  const found = locate(rule({ of: { step: 'w' } }), 'edges', world);
  expect(found).toMatchObject({ ok: true, value: { fate: 'exact', thing: { to: 'rule', things: [{}, {}] } } });
  const none = locate(rule({ of: { step: 'gone' } }), 'edges', world);
  expect(!none.ok && explain(none.issue)).toBe('No edge fits the rule any more: choose again.');
  const wrong = locate(rule({ of: { step: 'w' } }), 'face', world);
  expect(!wrong.ok && wrong.issue.code).toBe('reference.kind');
});

test('needs the steps that it names', () => {
  expect(needs(rule({ of: { step: 'w' }, and: { step: 'p' } }))).toEqual(['w', 'p']);
  expect(needs(rule({ turn: 'outer' }))).toEqual([]);
});

test('a picked edge offers the rules that it fits with others, the narrowest first, none twice', () => {
  const picked: Thing = { to: 'edge', edge: EDGES[0]!, body: 0 };
  const offers = widened(picked, [BODY]).map(({ rule: wider, count }) => [ruleWords(wider, nameOf), count]);
  expect(offers).toEqual([
    ['all edges between the end of Plate and sides of Plate', 2],
    ['all outer edges along x', 2],
    ['all edges of Plate', 4],
    ['all outer edges', 4],
  ]);
  const face: Thing = { to: 'face', face: flat(FACES[1]!), body: 0, topology: BODY };
  expect(widened(face, [BODY]).map(({ rule: wider, count }) => [ruleWords(wider, nameOf), count])).toEqual([
    ['all sides of Plate', 2],
    ['all faces of Plate', 3],
  ]);
});

test('in words', () => {
  const words: [Reference, string][] = [
    [rule({}), 'all edges'],
    [rule({ turn: 'outer', along: 'z' }), 'all outer edges along z'],
    [rule({ turn: 'inner', of: { step: 'w' } }), 'all inner edges of Wall'],
    [rule({ gives: 'faces' }), 'all faces of the part'],
    [rule({ of: { step: 'p', role: 'side' }, and: { step: 'p', role: 'side' } }), 'all edges between sides of Plate'],
  ];
  for (const [reference, text] of words) expect(referenceWords(reference, nameOf)).toBe(text);
});
