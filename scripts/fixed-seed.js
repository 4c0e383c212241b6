import fc from 'fast-check';

// In CI a property is tried with the same cases each time; at the desk with new ones.
if (process.env.CI) fc.configureGlobal({ seed: 20261123 });
