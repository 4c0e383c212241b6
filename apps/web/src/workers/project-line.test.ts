import { emptyProject, perform, seedSieve, type Action, type Project } from '@helb/core';
import { ProjectReceiver, ProjectSender } from './project-line.ts';

const demo = seedSieve();
const [value] = Object.keys(demo.values) as [string];
const set = (project: Project, expression: string): Project => {
  const actions: Action[] = [{ command: 'value.set', input: { id: value, expression } }];
  const done = perform(project, actions);
  if (!done.ok) throw new Error(done.issue.code);
  return done.value.project;
};
/** As it comes out of a message: other objects. */
const posted = <T>(message: T): T => structuredClone(message);

test('the first project goes over whole, the next ones by what differs; both ends have the same', () => {
  const [sender, receiver] = [new ProjectSender(), new ProjectReceiver()];
  const first = sender.next(demo);
  expect(first).toEqual({ whole: demo });
  const there = receiver.take(posted(first));
  const second = set(demo, '2-1/8"');
  const sent = sender.next(second);
  expect(sent).toEqual({ changes: [{ op: 'set', path: ['values', value, 'expression'], value: '2-1/8"' }] });
  const next = receiver.take(posted(sent));
  expect(next).toEqual(second);
  for (const id of demo.partOrder) expect(next.parts[id]).toBe(there.parts[id]);
  expect(receiver.take(posted(sender.next(second)))).toBe(next);
});

test('another project goes over whole, and the one after it by what differs from that', () => {
  const [sender, receiver] = [new ProjectSender(), new ProjectReceiver()];
  receiver.take(posted(sender.next(emptyProject('x'))));
  expect(receiver.take(posted(sender.next(demo)))).toEqual(demo);
  const next = set(demo, '7 mm');
  expect(receiver.take(posted(sender.next(next)))).toEqual(next);
  expect(receiver.take(posted(sender.next(demo)))).toEqual(demo);
});
