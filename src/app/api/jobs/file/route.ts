import { JOB_FILE_LIMIT_BYTES } from "@/formats/jobFile";
import { readBody, respond } from "@/server/http";
import { importJob } from "@/server/jobs";

/** Reads a job file in. `?copy=1` gives it new ids; `?origin=` says who. */
export const POST = (request: Request) =>
  respond(request, "work", async (who) => {
    const { searchParams } = new URL(request.url);
    const body = await readBody(request, JOB_FILE_LIMIT_BYTES);
    return body.ok
      ? importJob(who, body.value, searchParams.get("copy") === "1", searchParams.get("origin") ?? "")
      : body;
  });
