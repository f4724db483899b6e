export const TACK_SCHOOLS = ["hinge first", "outside first", "two halves", "all held"] as const;
export const WELD_SCHOOLS = [
  "across and around",
  "strength first",
  "corners then field",
  "joint by joint",
  "skip",
] as const;
export type TackSchoolId = (typeof TACK_SCHOOLS)[number];
export type WeldSchoolId = (typeof WELD_SCHOOLS)[number];
export type SchoolId = TackSchoolId | WeldSchoolId;
