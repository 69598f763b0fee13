import { type AbilityRecord, abilityRoutes } from '#contract/ability';
import { readinessRoutes, type TuneReadiness } from '#contract/readiness';
import { asked } from './ask';
import { serverApi } from './serverApi';

/** What the log says of the player, and what is missing for a tune: learnt on the server, in the background. */
const abilityApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    ability: build.query<AbilityRecord, void>({
      query: () => asked(abilityRoutes.findAbility, {}),
      providesTags: ['Book', 'Log'],
    }),
    readiness: build.query<TuneReadiness, string>({
      query: (id) => asked(readinessRoutes.findReadiness, { params: { id } }),
      providesTags: ['Book', 'Log', 'Own'],
    }),
  }),
});

export const { useAbilityQuery, useReadinessQuery } = abilityApi;
