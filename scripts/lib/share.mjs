/** Share of the random cases that tests try; 1 is the full size, which `npm run test:deep` takes. */
export const TEST_SHARE = Number(process.env.TEST_SHARE ?? 0.1);
