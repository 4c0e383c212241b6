/** The account that the demo makes; it is printed at the start. */
export const DEMO_ACCOUNT = { name: 'demo', password: 'seed-sieve-demo' } as const;
