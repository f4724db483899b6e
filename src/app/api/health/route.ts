import { health } from "@/server/health";

/** Tells the scripts that this is our server, of which folder it is, and whether its database answers. */
export const GET = async () => {
  const state = await health();
  return Response.json(state, { status: state.database === "answers" ? 200 : 503 });
};
