import * as Comlink from 'comlink';
import type { Pose } from '@helb/core/assembly';
import type { Approach, Chart, Nearness, Series, StudyInput, StudyStop, StudyTouch } from '@helb/core/study';

/** How everything stands at a time of a study, s. */
interface RanFrame {
  readonly time: number;
  readonly pose: Pose;
  readonly touching: readonly StudyTouch[];
}

/** What came of a study. */
export interface RanStudy {
  readonly frames: readonly RanFrame[];
  readonly stop: StudyStop | undefined;
  /** Members that stand in each other where it begins. */
  readonly overlaps: readonly (readonly [a: string, b: string])[];
  /** What could not be told, as sentences. */
  readonly untold: readonly string[];
}

/** Everything that crosses between the page and the worker of a study. */
export interface StudyWorker {
  run(input: StudyInput, progress: (done: number, of: number) => void): RanStudy;
  /** What charts show of the study that was run, each. */
  series(charts: readonly Chart[]): readonly (readonly Series[])[];
  /** The pairs that come nearest of what is looked at in it. */
  nearest(approach: Pick<Approach, 'a' | 'b'>): readonly Nearness[];
}

/** The page's side of a worker that runs one study; ending it ends what it does. */
export class StudyThread {
  private readonly worker = new Worker(new URL('./study.worker.ts', import.meta.url), { type: 'module' });
  private readonly api = Comlink.wrap<StudyWorker>(this.worker);
  private readonly broken = new Promise<never>((_, reject) => {
    this.worker.onerror = ({ message }) => reject(new Error(message));
  });

  run = (input: StudyInput, progress: (done: number, of: number) => void): Promise<RanStudy> =>
    Promise.race([this.api.run(input, Comlink.proxy(progress)), this.broken]);

  series = (charts: readonly Chart[]): Promise<readonly (readonly Series[])[]> =>
    Promise.race([this.api.series(charts), this.broken]);

  nearest = (approach: Pick<Approach, 'a' | 'b'>): Promise<readonly Nearness[]> =>
    Promise.race([this.api.nearest(approach), this.broken]);

  end = (): void => this.worker.terminate();
}
