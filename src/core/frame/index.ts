export * from "./corners";
export * from "./frameSchema";
export * from "./materials";
export * from "./problems";
export * from "./resolve";
export * from "./sections";
export * from "./shapes";
export * from "./tubeTolerances";
