/** The member of a union that a field tells apart, also where that member bears several names at once. */
export type MemberOf<Union, Field extends keyof Union, Name extends Union[Field]> = Union extends infer Member
  ? Member extends { readonly [K in Field]: infer Own }
    ? Name extends Own
      ? Member
      : never
    : never
  : never;
