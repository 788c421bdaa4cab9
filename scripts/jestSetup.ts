import fc from 'fast-check';

// One seed for every run, printed by the runner when a property fails; SEED=n tries another.
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261123) });
