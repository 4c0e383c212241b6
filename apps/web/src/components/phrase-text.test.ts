/** @jest-environment jsdom */
import { mount } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { nextTick } from 'vue';
import { perform, ProjectScript, stepKind, type Step } from '@helb/core';
import { useProject } from '../stores/project.ts';
import PhraseText from './phrase-text.vue';

/** The sentence of a chamfer in the making, as the desk has it. */
function sentence() {
  setActivePinia(createPinia());
  const { project } = new ProjectScript('Bevel');
  useProject().view = {
    project,
    stacks: { undo: [], redo: [] },
    state: { kind: 'keeping' },
    lost: undefined,
    clashes: [],
  };
  expect(perform(project, []).ok).toBe(true);
  let step = { kind: 'chamfer', name: 'Bevel', edges: [{ to: 'edge', name: 'a | b' }] } as unknown as Step;
  const entered: Step[] = [];
  const phrases = () => stepKind('chamfer').sentence(step, (id) => id);
  const set = (field: string, value: string) => {
    step = { ...step, [field]: value };
    return wrapper.setProps({ phrases: phrases() });
  };
  const wrapper = mount(PhraseText, {
    attachTo: document.body,
    props: {
      phrases: phrases(),
      change: () => [],
      choose: set,
      pick: () => undefined,
      keep: (field, expression) => {
        void set(field, expression);
        return { ok: true, value: undefined };
      },
      entered: () => entered.push(step),
    },
  });
  const type = async (text: string, key: 'enter' | 'tab') => {
    expect((wrapper.vm as unknown as { begin(text?: string): boolean }).begin(text)).toBe(true);
    await nextTick();
    await wrapper.get('input').trigger(`keydown.${key}`);
    await nextTick();
  };
  return { wrapper, set, type, entered, told: () => step };
}

test('a number is typed into the first place; where a word has brought another it is that which is typed next', async () => {
  const { set, type, entered, told } = sentence();
  await type('1.5', 'tab');
  expect(told()).toMatchObject({ distance: '1.5' });
  await set('shape', 'other');
  await type('2.5', 'enter');
  expect(told()).toMatchObject({ distance: '1.5', shape: 'other', other: '2.5' });
  expect(entered).toHaveLength(1);
  // after that it is the first again
  await type('3', 'enter');
  expect(told()).toMatchObject({ distance: '3', other: '2.5' });
});

test('from the last number Tab goes back to the view, which has the keys then', async () => {
  const { wrapper, type, entered } = sentence();
  await type('1.5', 'tab');
  expect(wrapper.find('input').exists()).toBe(false);
  expect(document.activeElement).toBe(document.body);
  expect(entered).toHaveLength(0);
});
