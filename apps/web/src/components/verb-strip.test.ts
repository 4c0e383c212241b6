/** @jest-environment jsdom */
import { mount } from '@vue/test-utils';
import VerbStrip from './verb-strip.vue';

test('what is called exactly so comes first, then what begins so, then a word that does', async () => {
  const ran: string[] = [];
  const titles = ['Half circle', 'Circle by three points', 'Encircle', 'Circle', 'Slot'];
  const verbs = titles.map((title) => ({ id: title, title, key: '', run: () => void ran.push(title) }));
  const wrapper = mount(VerbStrip, { attachTo: document.body, props: { place: 'Here', verbs } });
  await (wrapper.vm as unknown as { search(): Promise<void> }).search();
  const shown = () => wrapper.findAll('[role=option]').map((option) => option.text().trim());
  expect(shown()).toEqual(titles);
  await wrapper.get('input').setValue('circle');
  expect(shown()).toEqual(['Circle', 'Circle by three points', 'Half circle', 'Encircle']);
  await wrapper.get('input').trigger('keydown.enter');
  expect(ran).toEqual(['Circle']);
});
