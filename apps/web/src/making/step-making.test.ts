import { fail, ok, type Action, type Issue, type Reference, type Step } from '@helb/core';
import { putAfter, StepMaking, type MakingPort } from './step-making.ts';

const face = (name: string): Reference => ({ to: 'face', name });
const edge = (name: string): Reference => ({ to: 'edge', name });

/** A page with one step in its document that writes down what it is told. */
function page(kept: Record<string, Step> = {}) {
  const said = {
    drafted: [] as readonly Action[],
    acted: [] as readonly Action[],
    issues: [] as (Issue | undefined)[],
  };
  let refused = false;
  const port: MakingPort = {
    part: 'p',
    step: (id) => kept[id],
    placeAfter: () => ({ at: 4 }),
    draft(actions) {
      said.drafted = actions;
      return ok(undefined);
    },
    act(actions) {
      said.acted = actions;
      return refused ? fail('part.unknown', { id: 'p' }) : ok(undefined);
    },
    material: () => 'backwards' as const,
    isGone: (_, reference) => 'name' in reference && reference.name.startsWith('gone'),
    newId: (prefix) => `${prefix}9`,
    told: (issue) => said.issues.push(issue),
  };
  return { said, making: new StepMaking(port), refuse: () => (refused = true) };
}
const asked = ({ snapshot }: StepMaking) => snapshot.asked?.field;
const fillet = { kind: 'fillet', name: 'Fillet 1', radius: '2-1/8"' } as Step;

describe('a new step', () => {
  test('is shown at once where new steps go, and asks for what is missing', () => {
    const { making, said } = page();
    making.begin(fillet);
    expect(said.drafted).toEqual([{ command: 'step.add', input: { part: 'p', id: 's9', step: fillet, at: 4 } }]);
    expect(asked(making)).toBe('edges');
    expect(making.snapshot.draft).toMatchObject({ id: 's9', isNew: true });
  });

  test('is kept and put further up as one change', () => {
    const { making, said } = page();
    making.begin(fillet);
    making.answer(edge('a'));
    making.accept([putAfter('p', { stepOrder: ['s1', 's2', 's3', 's9'] }, 's9', 's2')]);
    expect(said.acted).toMatchObject([
      { command: 'step.add', input: { id: 's9', at: 4 } },
      { command: 'step.move', input: { part: 'p', step: 's9', to: 2 } },
    ]);
  });

  test('a line that may stay empty is asked where it is told, after what is missing', () => {
    const { making } = page();
    making.begin({ kind: 'revolve', name: 'R', sketch: 's1', axis: [] } as unknown as Step, 'axis');
    expect(asked(making)).toBe('axis');
    making.leave();
    making.begin(fillet, 'also');
    expect(asked(making)).toBe('edges');
  });

  test('a line for several takes picks one by one, and gives one back that is picked again', () => {
    const { making } = page();
    making.begin(fillet);
    for (const name of ['a', 'b', 'c']) making.answer(edge(name));
    making.answer(edge('b'));
    expect(making.snapshot.fields[0]!.picked).toEqual([edge('a'), edge('c')]);
    // more may follow: it is still asked
    expect(asked(making)).toBe('edges');
  });

  test('a word that asks for something else asks for it at once', () => {
    const { making } = page();
    const mirror = { kind: 'mirror', name: 'M', what: 'steps', steps: ['s1'], plane: [face('a')], copies: 'new' };
    making.begin(mirror as unknown as Step);
    making.ask('plane');
    making.setField('what', 'bodies');
    expect(asked(making)).toBe('bodies');
    making.answer({ to: 'body', name: 'b' });
    expect(making.snapshot.fields.map(({ picked }) => picked.length)).toEqual([1, 1]);
  });

  test('what is picked takes the place of what is gone, then it is added', () => {
    const { making } = page();
    making.begin({ ...fillet, edges: [edge('gone 1'), edge('a'), edge('gone 2')] } as Step);
    for (const name of ['b', 'c', 'd']) making.answer(edge(name));
    expect(making.snapshot.fields[0]!.picked).toEqual(['b', 'a', 'c', 'd'].map(edge));
  });

  test('a line for one is answered by one pick, then the next that lacks something is asked', () => {
    const { making } = page();
    making.begin({ kind: 'datum-plane', name: 'Plane 1', how: 'halfway', on: [] });
    expect(asked(making)).toBe('on.0');
    making.answer(face('s1/end'));
    expect(asked(making)).toBe('on.1');
    making.answer(face('s1/start'));
    expect(asked(making)).toBeUndefined();
    expect(making.snapshot.draft!.step).toMatchObject({ on: [face('s1/end'), face('s1/start')] });
  });

  test('another way keeps of the picks what it asks for in the same places', () => {
    const { making } = page();
    const on = [face('s1/end'), face('s1/start')];
    making.begin({ kind: 'datum-plane', name: 'Plane 1', how: 'halfway', on });
    // turned from a plane about an axis: the second is no axis
    making.setField('how', 'angle');
    expect(making.snapshot.draft!.step).toMatchObject({ how: 'angle', on: [face('s1/end')] });
    expect(asked(making)).toBe('on.1');
  });

  test('is not kept while something is missing: that is said and asked', () => {
    const { making, said } = page();
    making.begin(fillet);
    making.ask(undefined);
    expect(making.accept()).toMatchObject({ ok: false, issue: { code: 'reference.missing' } });
    expect(asked(making)).toBe('edges');
    expect(said.acted).toEqual([]);
    expect(said.issues.at(-1)?.code).toBe('reference.missing');
  });

  test('is kept with the values that were named on the way, as one gesture', () => {
    const { making, said } = page();
    making.begin(fillet);
    making.answer(edge('a'));
    const { draft } = making.snapshot;
    const naming: Action[] = [{ command: 'value.add', input: { id: 'v1', name: 'round', expression: '3 mm' } }];
    making.set({ ...draft!, step: { ...draft!.step, radius: 'round' } as Step, naming });
    expect(making.accept().ok).toBe(true);
    expect(said.acted.map(({ command }) => command)).toEqual(['value.add', 'step.add']);
    expect(making.snapshot.draft).toBeUndefined();
    expect(said.drafted).toEqual([]);
  });

  test('stays as it is where the document refuses it', () => {
    const { making, refuse } = page();
    making.begin(fillet);
    making.answer(edge('a'));
    refuse();
    expect(making.accept().ok).toBe(false);
    expect(making.snapshot.draft).toMatchObject({ id: 's9' });
  });
});

describe('a step of the document', () => {
  const kept = { s1: { ...fillet, edges: [edge('a')] } as Step };

  test('is changed by what differs only; nothing where nothing does', () => {
    const { making, said } = page(kept);
    making.edit('s1');
    expect(said.drafted).toEqual([]);
    expect(asked(making)).toBeUndefined();
    making.setField('radius', '7 mm');
    expect(said.drafted).toEqual([
      { command: 'step.set', input: { part: 'p', step: 's1', fields: { radius: '7 mm' } } },
    ]);
    making.setField('radius', '2-1/8"');
    expect(said.drafted).toEqual([]);
  });

  test('is opened at the line that was clicked', () => {
    const { making } = page(kept);
    making.edit('s1', 'edges');
    expect(asked(making)).toBe('edges');
    making.leave();
    expect([asked(making), making.snapshot.draft]).toEqual([undefined, undefined]);
  });

  test('that is gone meanwhile is left to the document, which refuses; one that never was is not opened', () => {
    const steps: Record<string, Step> = { ...kept };
    const { making, said } = page(steps);
    making.edit('s7');
    expect(making.snapshot.draft).toBeUndefined();
    making.edit('s1');
    delete steps['s1'];
    making.setField('radius', '7 mm');
    expect(said.drafted[0]).toMatchObject({ command: 'step.set', input: { step: 's1' } });
  });
});

test('each change is told once to whoever listens', () => {
  const { making } = page();
  const told: (string | undefined)[] = [];
  making.subscribe(({ asked: line }) => told.push(line?.field));
  making.ask('edges');
  making.ask('edges');
  expect(told).toHaveLength(1);
});

test('a change that was left standing is gone on with over what came meanwhile; untouched there is nothing to keep', () => {
  const kept: Record<string, Step> = { s1: { ...fillet, edges: [edge('a')] } as Step };
  const { making, said } = page(kept);
  making.edit('s1');
  expect(making.made).toBeUndefined();
  making.setField('radius', '5 mm');
  const left = JSON.parse(JSON.stringify(making.made)) as NonNullable<typeof making.made>;
  making.leave();
  // renamed and with another edge by now
  kept['s1'] = { ...kept['s1'], name: 'Rim', edges: [edge('b')] } as Step;
  making.resume(left);
  expect(making.snapshot.draft!.step).toMatchObject({ name: 'Rim', radius: '5 mm', edges: [edge('b')] });
  making.accept();
  expect(said.acted).toEqual([{ command: 'step.set', input: { part: 'p', step: 's1', fields: { radius: '5 mm' } } }]);
});

describe('which way it goes', () => {
  const extrusion = { kind: 'extrude', name: 'Extrusion 1', sketch: 's1', result: 'add' } as Step;

  test('what is cut away goes into the material, what is added does not', () => {
    const { making } = page();
    making.begin(extrusion);
    making.setField('result', 'cut');
    expect(making.snapshot.draft!.step).toMatchObject({ result: 'cut', ways: 'backwards' });
    making.setField('result', 'add');
    expect(making.snapshot.draft!.step).toEqual({ ...extrusion, result: 'add' });
  });

  test('whoever turns it keeps what they turned it to', () => {
    const { making } = page();
    making.begin(extrusion);
    expect(making.turn()).toBe(true);
    making.setField('result', 'cut');
    expect(making.snapshot.draft!.step).toMatchObject({ ways: 'backwards' });
    making.turn();
    making.setField('result', 'overlap');
    expect(making.snapshot.draft!.step).toMatchObject({ ways: 'forwards' });
  });

  test('distances change sides, offsets go to the other, a round has no other way', () => {
    const { making } = page();
    making.begin({ kind: 'chamfer', name: 'C', shape: 'other', distance: '2.5 mm' });
    making.turn();
    expect(making.snapshot.draft!.step).toMatchObject({ distance: '2 mm', other: '2.5 mm' });
    making.begin({ kind: 'datum-plane', name: 'P', how: 'offset', on: [], by: '3/16 in' });
    making.turn();
    expect(making.snapshot.draft!.step).toMatchObject({ by: '-3/16 in' });
    making.turn();
    expect(making.snapshot.draft!.step).toMatchObject({ by: '3/16 in' });
    making.begin({ kind: 'pattern-line', name: 'N' });
    making.turn();
    expect(making.snapshot.draft!.step).toMatchObject({ spacing: '-20 mm' });
    making.begin(fillet);
    expect(making.turn()).toBe(false);
  });

  test('no key makes a left-handed thread, and what goes all the way round has no other way', () => {
    const { making } = page();
    making.begin({ kind: 'thread', name: 'T', faces: [] } as unknown as Step);
    expect(making.turn()).toBe(false);
    making.begin({ kind: 'revolve', name: 'R', sketch: 's1' });
    expect(making.turn()).toBe(false);
    making.setField('angle', '90 deg');
    expect(making.turn()).toBe(true);
    expect(making.snapshot.draft!.step).toMatchObject({ ways: 'backwards' });
  });

  test('what goes both ways goes one way when it is turned, then the other', () => {
    const { making } = page();
    making.begin({ ...extrusion, ways: 'both' } as Step);
    for (const ways of ['forwards', 'backwards', 'forwards']) {
      expect(making.turn()).toBe(true);
      expect(making.snapshot.draft!.step).toMatchObject({ ways });
    }
  });

  test("a direction that stands in the document is nobody's guess", () => {
    const { making } = page({ s2: { ...extrusion, ways: 'backwards', result: 'cut' } as Step });
    making.begin(extrusion);
    making.setField('result', 'cut');
    making.edit('s2');
    making.setField('result', 'add');
    expect(making.snapshot.draft!.step).toMatchObject({ ways: 'backwards', result: 'add' });
  });
});
