import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import * as english from '@zxcvbn-ts/language-en';

/** Guesses that a new password has to hold out against: what is tried online within a life, and more. */
const FEWEST_GUESSES = 1e8;
/** What is looked at: estimating grows with the square of the length, and this much alone has to hold out. */
const LOOKED_AT = 40;
/** Words that anybody would try here first. */
const OURS = ['helb', 'sieve', 'seed sieve'];

let estimator: ZxcvbnFactory | undefined;
const estimate = (): ZxcvbnFactory =>
  (estimator ??= new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
  }));

/**
 * Why a new password would be guessed soon, or undefined. Takes up to a quarter of a second for a contrived one: not for the
 * event loop.
 * @param words that somebody who guesses would know: the account's name
 */
export function weaknessOf(password: string, words: readonly string[]): string | undefined {
  const known = [...words, ...words.flatMap((word) => word.split(/[ ._-]+/)), ...OURS];
  const { guesses } = estimate().check(password.slice(0, LOOKED_AT), known);
  if (guesses >= FEWEST_GUESSES) return undefined;
  return 'this would be guessed soon: it is common, or made of what is easily guessed. Several words that have nothing to do with each other are good';
}
