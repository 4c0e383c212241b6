import { defineStore } from 'pinia';
import { useDocumentVisibility } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { differences, filesUsed, broughtFrom, type Action, type Id, type Origin, type Revision } from '@helb/core';
import { isThrown } from '../shelf/shelved.ts';
import { api, ApiError, type ProjectCard } from '../sync/api.ts';
import { newId } from './ids.ts';
import { usePlacements } from './placements.ts';
import { useProject } from './project.ts';
import { useAssembly } from './assembly.ts';

/** What has become of a part in the project that it comes from. */
export type News =
  | { readonly kind: 'as it is' }
  /** The project is not there any more, or the part or the variant in it. */
  | { readonly kind: 'missing'; readonly what: 'project' | 'part' | 'variant' }
  | { readonly kind: 'newer'; readonly origin: Origin; readonly changes: readonly string[] };

/** Parts from other projects: bringing them, and what is new of them there. */
export const useBrought = defineStore('brought', () => {
  const store = useProject();
  const placements = usePlacements();
  const assemblyStore = useAssembly();
  const cards = shallowRef<readonly ProjectCard[]>();
  const revisions = shallowRef<ReadonlyMap<string, Revision>>(new Map());
  const message = ref('');

  /** The projects that parts can be brought from. */
  const projects = computed(() => cards.value?.filter(({ id }) => id !== store.id) ?? []);
  const origins = computed(() =>
    Object.entries(store.kept?.parts ?? {}).flatMap(([id, { from }]) => (from?.project ? [[id, from] as const] : [])),
  );

  async function told<T>(work: Promise<T>): Promise<T | undefined> {
    message.value = '';
    return work.catch((error: unknown) => {
      message.value = (error as Error).message;
      return undefined;
    });
  }

  /** What was thrown away is gone, until it is taken back. */
  const onShelf = async () => (await api.projects()).filter((card) => !isThrown(card));
  const listProjects = async () => void (cards.value = (await told(onShelf())) ?? cards.value);

  /** A project as it is now; undefined where it can not be had. */
  async function open(project: string): Promise<Revision | undefined> {
    const is = cards.value?.find(({ id }) => id === project)?.revision;
    const known = revisions.value.get(project);
    if (known && known.revision === is) return known;
    const answer = await told(api.document(project));
    if (!answer) return undefined;
    const opened = { project, ...answer };
    revisions.value = new Map(revisions.value).set(project, opened);
    return opened;
  }

  /** Asks what is new of all parts that come from elsewhere; without the server all stays as it was known. */
  async function look(): Promise<void> {
    if (origins.value.length === 0) return;
    const found = await onShelf().catch(() => undefined);
    if (!found) return;
    cards.value = found;
    const revisionOf = new Map(found.map(({ id, revision }) => [id, revision]));
    const newer = origins.value.filter(([, { project, revision }]) => (revisionOf.get(project!) ?? 0) > revision);
    for (const project of new Set(newer.map(([, from]) => from.project!))) await open(project);
  }
  const asked = computed(() => [store.id, ...new Set(origins.value.map(([, { project }]) => project))].join(' '));
  watch(asked, () => void look(), { immediate: true });
  watch(useDocumentVisibility(), (now) => now === 'visible' && void look());

  const news = computed(
    (): ReadonlyMap<Id, News> =>
      new Map(
        origins.value.flatMap(([id, from]) => {
          const what = newsOf(from);
          return what ? [[id, what] as const] : [];
        }),
      ),
  );
  function newsOf(from: Origin): News | undefined {
    if (!cards.value) return undefined;
    const card = cards.value.find(({ id }) => id === from.project);
    if (!card) return { kind: 'missing', what: 'project' };
    const now = revisions.value.get(card.id);
    if (card.revision <= from.revision || !now) return { kind: 'as it is' };
    if (!now.document.parts[from.part]) return { kind: 'missing', what: 'part' };
    if (from.variant !== undefined && !now.document.variants?.[from.variant])
      return { kind: 'missing', what: 'variant' };
    const origin = broughtFrom(now, from.part, from.variant);
    const changes = differences(from, origin);
    return changes.length === 0 ? { kind: 'as it is' } : { kind: 'newer', origin, changes };
  }
  const newer = computed(() =>
    [...news.value].flatMap(([id, what]) => (what.kind === 'newer' ? [{ id, ...what }] : [])),
  );

  /** Files that it brings in are kept with this project too: they stay when the other goes. */
  async function withFiles(from: Origin): Promise<boolean> {
    for (const { hash, name } of filesUsed(from.design))
      try {
        await api.shareFile(store.id!, hash);
      } catch (error) {
        const reason = error instanceof ApiError ? error.message : 'The server does not answer.';
        message.value = `${name} could not be brought along: ${reason}`;
        return false;
      }
    return true;
  }

  /** Brings a part as it is now, and places it once beside everything else. */
  async function bring(revision: Revision, part: Id, variant: Id | undefined): Promise<void> {
    const from = broughtFrom(revision, part, variant);
    const { id: into } = store;
    message.value = '';
    if (!(await withFiles(from))) return;
    await assemblyStore.together();
    // somebody may have gone on to another project meanwhile
    if (store.id !== into) return;
    const id = newId('part');
    store.act([
      { command: 'part.bring', input: { id, from } },
      placements.placing({ part: id }, from.design.parts[part]!.name),
    ]);
  }

  /** Takes parts as they are now where they come from, in one gesture. */
  async function take(ids: readonly Id[]): Promise<void> {
    const taken = newer.value.filter(({ id }) => ids.includes(id));
    const { id: into } = store;
    message.value = '';
    for (const { origin } of taken) if (!(await withFiles(origin))) return;
    const actions = taken.map(({ id, origin: from }): Action => ({ command: 'part.update', input: { id, from } }));
    if (actions.length > 0 && store.id === into) store.act(actions);
  }

  return { projects, listProjects, open, news, newer, bring, take, message };
});
