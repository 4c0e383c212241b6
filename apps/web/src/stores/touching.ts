import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { Id, Project } from '@helb/core';
import {
  contactsOf,
  isTouchTold,
  touchingShape,
  type ContactRecord,
  type Contacts,
  type Pose,
  type TouchingBody,
} from '@helb/core/assembly';
import { newId } from './ids.ts';
import { useModel, type BuiltAssembly } from './model.ts';
import { useProject } from './project.ts';

/** What is kept out of each other while it moves. */
export const useTouching = defineStore('touching', () => {
  const store = useProject();
  const model = useModel();
  /** Undefined where nothing may touch, and until the bodies for it have come. */
  const contacts = shallowRef<Contacts>();
  const isPreparing = shallowRef(false);
  /** Members that stood in each other when this was made ready: there they are not kept apart. */
  const overlaps = shallowRef<readonly (readonly [a: string, b: string])[]>([]);
  /** The bodies that came last, and which they were. */
  let came: { readonly keys: string; readonly bodies: readonly TouchingBody[] } | undefined;
  let asked: symbol | undefined;

  const records = computed(() => Object.entries(store.project?.assembly?.contacts ?? {}));

  /** Makes what may touch ready again, after all was brought together anew and stands in a pose. */
  async function refresh(project: Project, { assembled, parts }: BuiltAssembly, pose: Pose): Promise<void> {
    const mine = (asked = Symbol());
    const { assembly } = project;
    contacts.value = undefined;
    isPreparing.value = false;
    overlaps.value = [];
    if (!assembly || !isTouchTold(assembly)) return;
    const keys = Object.values(parts)
      .flatMap(({ bodies }) => bodies.map(({ key }) => key))
      .join();
    isPreparing.value = true;
    const bodies = came?.keys === keys ? came.bodies : await model.engine.touching(project).catch(() => undefined);
    if (asked !== mine) return;
    if (!bodies) {
      isPreparing.value = false;
      store.message =
        'What touches could not be made ready: parts pass through each other. Change something to try again.';
      return;
    }
    came = { keys, bodies };
    // one after the other: the page stays alive
    for (const body of bodies) {
      touchingShape(body);
      await breath();
      if (asked !== mine) return;
    }
    const found = contactsOf(assembly, assembled, bodies);
    contacts.value = found.isEmpty ? undefined : found;
    isPreparing.value = false;
    const standing: (readonly [string, string])[] = [];
    for (const pair of found.overlaps(pose)) {
      if (pair) standing.push(pair);
      await breath();
      if (asked !== mine) return;
    }
    overlaps.value = standing;
  }

  const set = (id: Id, contact?: ContactRecord) =>
    store.act([{ command: 'contact.set', input: { id, ...(contact ? { contact } : {}) } }]);
  /** Lets two placements touch, or one and everything, or everything. */
  const add = (a?: string, b?: string) =>
    set(newId('k'), { ...(a === undefined ? {} : { a }), ...(b === undefined ? {} : { b }), on: true });

  return { contacts, isPreparing, overlaps, records, refresh, set, add };
});

/** Lets the page do what waits. */
const breath = () => new Promise<void>((resolve) => setTimeout(resolve));
