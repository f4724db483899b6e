import * as z from "zod";
import { readSlant, SLANT_UNITS } from "./slant";

/** A stated slope or angle: the schema refuses a value that its own text does not say. */
export const slantSchema = z
  .strictObject({ value: z.number(), text: z.string().max(40), slant: z.enum(SLANT_UNITS) })
  .superRefine((s, context) => {
    const read = readSlant(s.text, s.slant);
    if (!read.ok) context.addIssue({ code: "custom", message: read.message });
    else if (Math.abs(read.value.value - s.value) > 1e-9 || read.value.slant !== s.slant)
      context.addIssue({ code: "custom", message: `The text "${s.text}" does not say ${s.value} ${s.slant}.` });
  });
