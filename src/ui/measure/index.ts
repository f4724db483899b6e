export * from "./quantities";
export * from "./ReadingPad";
export * from "./RoundTabs";
export * from "./useRounds";
export * from "./WhatCanBeProven";
