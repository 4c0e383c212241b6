import * as Comlink from 'comlink';
import {
  StudyOutcome,
  untoldWords,
  type Approach,
  type Chart,
  type Nearness,
  type Series,
  type StudyInput,
} from '@helb/core/study';
import type { RanStudy, StudyWorker } from './study-client.ts';

/** One study in a thread of its own: it is run there, and what charts show of it is read there. */
let outcome: StudyOutcome | undefined;

const api: StudyWorker = {
  run(input: StudyInput, progress: (done: number, of: number) => void): RanStudy {
    const running = (outcome = new StudyOutcome(input));
    for (const frame of running.run()) if (frame) progress(running.frames.length, input.plan.steps + 1);
    const { frames, stop, overlaps } = running;
    return {
      frames: frames.map(({ time, pose, touching }) => ({ time, pose, touching })),
      ...{ stop, overlaps, untold: untoldWords(frames, stop) },
    };
  },
  series: (charts: readonly Chart[]): readonly (readonly Series[])[] =>
    charts.map((chart) => outcome?.series(chart) ?? []),
  nearest(approach: Pick<Approach, 'a' | 'b'>): readonly Nearness[] {
    const going = outcome?.nearest(approach);
    for (;;) {
      const next = going?.next();
      if (!next) return [];
      if (next.done) return next.value;
    }
  },
};
Comlink.expose(api);
