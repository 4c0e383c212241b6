/** @jest-environment jsdom */
import { mount } from '@vue/test-utils';
import VerbStrip from './verb-strip.vue';

// the document of the tests has no layout to scroll in
Element.prototype.scrollIntoView = () => undefined;

test('verbs are found by typing, best first; what is not possible yet says why and is not done', async () => {
  const ran: string[] = [];
  const verb = (title: string, lacks?: string) => ({
    ...{ id: title, title, key: title[0]!, says: `Draws a ${title}.` },
    ...(lacks === undefined ? {} : { lacks }),
    run: () => void ran.push(title),
  });
  const verbs = [verb('Half circle'), verb('Circle'), verb('Round', 'Pick corners first.')];
  const wrapper = mount(VerbStrip, { attachTo: document.body, props: { place: 'Here', verbs } });
  const strip = wrapper.vm as unknown as { search(): Promise<void>; press(key: string, asNumber?: string): boolean };
  expect(wrapper.findAll('button').map((button) => button.text())).toEqual(['HHalf circle', 'CCircle', 'more… Space']);
  expect([strip.press('x'), strip.press('r'), ran]).toEqual([false, true, []]);
  await wrapper.vm.$nextTick();
  expect(wrapper.get('[role=status]').text()).toBe('Round Pick corners first.');
  expect([strip.press('c'), ran]).toEqual([true, ['Circle']]);
  await wrapper.vm.$nextTick();
  expect(wrapper.find('[role=status]').exists()).toBe(false);

  // a letter that is no key says so, and how it would be typed as the name of a number
  expect(strip.press('t', 'After =.')).toBe(false);
  await wrapper.vm.$nextTick();
  expect(wrapper.get('[role=status]').text()).toBe('T is no key here. After =.');

  await strip.search();
  const shown = () => wrapper.findAll('[role=option]').map((option) => option.text().replace(/ .$/, '').trim());
  await wrapper.get('input').setValue('circle');
  expect(shown()).toEqual(['Circle', 'Half circle']);
  await wrapper.get('input').setValue('round');
  expect(wrapper.get('[data-testid=verb-card]').text()).toContain('Pick corners first.');
  await wrapper.get('input').trigger('keydown.enter');
  expect([ran, wrapper.find('input').exists()]).toEqual([['Circle'], true]);
  await wrapper.get('input').setValue('half');
  await wrapper.get('input').trigger('keydown.enter');
  expect([ran, wrapper.find('input').exists()]).toEqual([['Circle', 'Half circle'], false]);
});
