import { DEFAULT_SETTINGS, playerSettings, settingsSchema } from './settings';

test('settings that an earlier version kept are read: renamed schools, new ones as usual, a limit that is gone left out', () => {
  const { guide: _guide, ovals: _ovals, ...schools } = DEFAULT_SETTINGS.schools;
  const old = {
    ...DEFAULT_SETTINGS,
    schools: { ...schools, arm: 'wrist' },
    limits: {
      slurCrossingFactor: { value: 1.2, source: 'measured', date: '2026-03-02' },
      strokeMs: { value: 80, source: 'measured', date: '2026-03-02' },
    },
  };
  const read = settingsSchema.parse(old);
  expect(read.schools).toMatchObject({ arm: 'middle', guide: 'lowest-finger', ovals: 'no-matter' });
  expect(Object.keys(read.limits)).toEqual(['strokeMs']);
  expect(playerSettings(read).limits.slurCrossingMs).toEqual({ value: 45, source: 'guess' });
  expect(settingsSchema.parse({ ...old, schools: { ...schools, arm: 'elbow' } }).schools.arm).toBe('early');
});

test('a school or a limit that there is not is refused', () => {
  const arm = { ...DEFAULT_SETTINGS, schools: { ...DEFAULT_SETTINGS.schools, arm: 'shoulder' } };
  expect(settingsSchema.safeParse(arm).success).toBe(false);
  const limit = { ...DEFAULT_SETTINGS, limits: { strokeMss: { value: 1, source: 'guess' } } };
  expect(settingsSchema.safeParse(limit).success).toBe(false);
});
