import { differenceOf, withDifference, type FieldChange, type Project } from '@helb/core';

/** A project on its way to the worker: whole, or by what differs from the one that was sent before it. */
export type SentProject = { readonly whole: Project } | { readonly changes: readonly FieldChange[] };

/** More changes than these are another project: it goes over whole. */
const MOST_CHANGES = 200;

/** The page's end of the line to one worker. Messages arrive in the order in which they are sent. */
export class ProjectSender {
  private last: Project | undefined;

  next(project: Project): SentProject {
    const { last } = this;
    this.last = project;
    const changes = last && differenceOf(last, project);
    return changes && changes.length <= MOST_CHANGES ? { changes } : { whole: project };
  }
}

/** The worker's end: what did not change stays the same objects, so that what was worked out of them is still known. */
export class ProjectReceiver {
  private last: Project | undefined;

  take(sent: SentProject): Project {
    this.last = 'whole' in sent ? sent.whole : withDifference(this.last!, sent.changes);
    return this.last;
  }
}
