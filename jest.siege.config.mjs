import unit from './jest.config.mjs';

/**
 * The siege: hostile files, kills, crowds. Generated, seeded, bounded to ten minutes or so; run by scripts/siege.sh.
 */
export default { ...unit, testMatch: ['**/*.siege.ts'], maxWorkers: 1, testTimeout: 1_200_000 };
