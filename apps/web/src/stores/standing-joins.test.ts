/** @jest-environment jsdom */
import type { JointRecord } from '@helb/core/assembly';
import { pick, testBench as bench } from './test-bench.ts';

test('what is being joined stands as it was when somebody goes elsewhere, over a reload too', () => {
  sessionStorage.clear();
  const opened = () => {
    const made = bench();
    made.joining.comeIn('p1');
    return made;
  };
  const first = opened();
  first.joining.begin('joint', 'revolute');
  // nothing chosen yet is nothing to keep
  first.joining.leaveStanding();
  expect(first.joining.stands).toEqual([]);
  first.joining.begin('joint', 'revolute');
  first.joining.answer(pick('f', 'z'));
  first.joining.answer(pick('a', 'z'));
  first.joining.change({ offset: 'reach / 2', flip: true });
  const { id, sides } = first.joining.draft!;
  first.joining.leaveStanding();
  expect([first.joining.draft, first.joining.stands.map(first.joining.titleOf)]).toEqual([
    undefined,
    ['revolute: Frame and Arm'],
  ]);

  const { joining, store, project } = opened();
  expect(joining.stands.map((one) => one.id)).toEqual([id]);
  // one that is made meanwhile is none of its business, and stands too when the other is gone on with
  joining.begin('relation', 'coincident');
  joining.answer(pick('l', 'z'));
  joining.resume(id);
  expect(joining.draft).toMatchObject({ id, offset: 'reach / 2', flip: true, sides });
  expect(joining.stands.map(joining.titleOf)).toEqual(['coincident: Lid and …']);
  joining.accept();
  expect(project().assembly!.joints[id]).toMatchObject({ kind: 'revolute', offset: 'reach / 2' });
  store.act([{ command: 'placement.remove', input: { ids: ['l'] } }]);
  expect(joining.stands).toEqual([]);
  sessionStorage.setItem('helb joining p1', '[null, {"id": "x", "sort": "joint", "kind": "glue", "sides": []}]');
  const last = opened();
  expect(last.joining.stands).toEqual([]);
});

test('what does not hold is told before it is kept; said again it is kept all the same', () => {
  const { joining, store, project } = bench((script) => {
    const at = (placement: string) => ({
      placement,
      on: { to: 'origin', name: 'origin' } as const,
      spot: 'middle' as const,
    });
    const record: JointRecord = {
      ...{ name: 'Fast', kind: 'rigid', a: at('f'), b: at('a'), flip: false, offset: '0 mm', angle: '0 deg' },
    };
    script.do('joint.add', { id: 'j1', record });
  });
  const show = () => store.act([]);
  joining.begin('relation', 'distance');
  joining.answer(pick('f', 'top'));
  joining.answer(pick('a', 'top'));
  joining.change({ amount: '30 mm' });
  show();
  expect(joining.wrong).toContain('Fast');
  expect(joining.accept()).toBeUndefined();
  expect(store.message).toContain('accept it again');
  // another number is another one
  joining.change({ amount: '20 mm' });
  show();
  expect(store.message).toBe('');
  expect(joining.accept()).toBeUndefined();
  expect(project().assembly!.relations).toEqual({});
  expect(joining.accept()).toMatchObject({ ok: true });
  expect(Object.keys(project().assembly!.relations)).toHaveLength(1);
});
