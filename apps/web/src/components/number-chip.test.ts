/** @jest-environment jsdom */
import { mount } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { LENGTH, perform, seedSieve, type Action, type Project } from '@helb/core';
import { useProject } from '../stores/project.ts';
import NumberChip from './number-chip.vue';

/** A chip on the thickness of the demo plate, over a project that is only in memory. */
function chip(text = '8 mm') {
  setActivePinia(createPinia());
  const store = useProject();
  let project: Project = seedSieve();
  const acted: (readonly Action[])[] = [];
  const show = () =>
    (store.view = {
      project,
      stacks: { undo: [], redo: [] },
      state: { kind: 'keeping' },
      lost: undefined,
      clashes: [],
    });
  show();
  const keep = (actions: readonly Action[]) => {
    const done = perform(project, actions);
    if (!done.ok) return done;
    project = done.value.project;
    acted.push(actions);
    show();
    return { ok: true, value: undefined } as const;
  };
  Object.assign(store, { act: keep });
  const id = project.valueOrder.find((value) => project.values[value]!.name === 'plate thickness')!;
  const wrapper = mount(NumberChip, {
    attachTo: document.body,
    props: {
      text,
      asks: LENGTH,
      label: 'thickness',
      change: (expression: string): Action[] => [{ command: 'value.set', input: { id, expression } }],
      keep: (expression, naming) => keep([...naming, { command: 'value.set', input: { id, expression } }]),
    },
  });
  const type = async (typed: string) => {
    await wrapper.get('button').trigger('keydown.enter');
    await wrapper.get('input').setValue(typed);
    await wrapper.get('input').trigger('keydown.enter');
  };
  return { wrapper, acted, type, thickness: () => project.values[id]!.expression };
}

test('shows what was typed, and what a name or a sum comes to', () => {
  const { wrapper } = chip('plate thickness * 2');
  const button = wrapper.get('button');
  expect(button.text()).toBe('plate thickness * 2 = 16');
  expect(chip('8 mm').wrapper.get('button').text()).toBe('8 mm');
  expect(button.attributes('title')).toBe('comes to 16 mm');
  expect(button.attributes('aria-label')).toBe('thickness: plate thickness * 2');
});

test('Enter keeps a number; what can not be is told and stays to be mended', async () => {
  const { wrapper, type, thickness } = chip();
  await type('3 mm + 20 deg');
  expect(wrapper.get('[role=alert]').text()).toMatch(/a length and an angle can't be added/);
  expect(thickness()).toBe('8 mm');
  await wrapper.get('input').setValue('1/2 in');
  await wrapper.get('input').trigger('keydown.enter');
  expect(thickness()).toBe('1/2 in');
  expect(wrapper.find('input').exists()).toBe(false);
});

test('a number is named where it stands, in the same gesture', async () => {
  const { type, acted } = chip();
  await type('sheet = 6 mm');
  expect(acted).toEqual([
    [
      { command: 'value.add', input: { id: expect.any(String), name: 'sheet', expression: '6 mm' } },
      { command: 'value.set', input: { id: expect.any(String), expression: 'sheet' } },
    ],
  ]);
});

test('a number that is named without a unit is what is asked for; a name that nobody knows gets its number there', async () => {
  const { wrapper, type, acted, thickness } = chip();
  await type('sheet = 1/8 + 2');
  expect(acted.at(-1)![0]).toMatchObject({ input: { name: 'sheet', expression: '(1/8 + 2) mm' } });
  await type('2 * rib');
  expect(wrapper.get('[role=alert]').text()).toContain('"rib"');
  const missing = wrapper.get('input[aria-label="value of rib"]');
  // going to it from the number is not leaving the number
  await wrapper.get('input').trigger('focusout', { relatedTarget: missing.element });
  await missing.setValue('nothing');
  await missing.trigger('keydown.enter');
  expect(wrapper.text()).toContain('"nothing"');
  expect(acted).toHaveLength(1);
  await missing.setValue('3');
  await missing.trigger('keydown.enter');
  expect(acted.slice(1)).toEqual([
    [{ command: 'value.add', input: { id: expect.any(String), name: 'rib', expression: '3 mm' } }],
    [{ command: 'value.set', input: { id: expect.any(String), expression: '2 * rib' } }],
  ]);
  expect(thickness()).toBe('2 * rib');
  expect(wrapper.find('input').exists()).toBe(false);
});

test('a click elsewhere takes what was typed, and leaves what can not be', async () => {
  const { wrapper, thickness } = chip();
  for (const [typed, kept] of [
    ['nobody', '8 mm'],
    ['9 mm', '9 mm'],
  ] as const) {
    await wrapper.get('button').trigger('keydown.enter');
    await wrapper.get('input').setValue(typed);
    await wrapper.get('input').trigger('focusout');
    expect(wrapper.find('input').exists()).toBe(false);
    expect(thickness()).toBe(kept);
  }
});

test('Esc leaves the number as it was; up and down nudge by its last digit', async () => {
  const { wrapper, thickness } = chip('2.50 mm');
  await wrapper.get('button').trigger('keydown.enter');
  const input = wrapper.get('input');
  await input.trigger('keydown.up');
  expect((input.element as HTMLInputElement).value).toBe('2.51 mm');
  await input.trigger('keydown.down');
  await input.trigger('keydown.down');
  expect((input.element as HTMLInputElement).value).toBe('2.49 mm');
  await input.trigger('keydown.esc');
  expect(wrapper.find('input').exists()).toBe(false);
  expect(thickness()).toBe('8 mm');
});

test('begun by a key of the view it is shown while it is typed; Enter takes what it belongs to, Esc leaves what stood there', async () => {
  const { wrapper, thickness } = chip();
  let entered = 0;
  await wrapper.setProps({ entered: () => void entered++ });
  const { begin } = wrapper.vm as unknown as { begin(text?: string): Promise<void> };
  await begin('9');
  expect(thickness()).toBe('9');
  // what is kept comes back as its text
  await wrapper.setProps({ text: '9' });
  await wrapper.get('input').trigger('keydown.esc');
  expect([thickness(), entered]).toEqual(['8 mm', 0]);
  await wrapper.setProps({ text: '8 mm' });
  await begin('9');
  await wrapper.get('input').trigger('keydown.enter');
  expect([thickness(), entered]).toEqual(['9', 1]);
  // clicked and typed, it is taken alone
  await wrapper.get('button').trigger('keydown.enter');
  await wrapper.get('input').setValue('11 mm');
  await wrapper.get('input').trigger('keydown.enter');
  expect([thickness(), entered]).toEqual(['11 mm', 1]);
});
