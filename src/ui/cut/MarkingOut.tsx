import { equalGapWords, markingOutOf, markWords, measuredFromWords, PLACED_AS_WORDS } from "@/core/job";
import { formatLength } from "@/core/units";
import { useJob } from "../job/JobProvider";

/** What is marked on each piece before it is laid down, in running distances from one end. */
export function MarkingOut() {
  const { job, evaluation, units } = useJob("job", "evaluation", "units");
  const { pieces, placed } = markingOutOf(job.plan, evaluation);
  if (pieces.length === 0)
    return <p className="text-soft">Nothing lands along a piece, and no hole is placed on one.</p>;
  return (
    <div className="grid gap-5" data-testid="marking-out">
      <p className="max-w-prose text-sm text-soft">
        Hook the tape once and read every distance from that end. Places are {PLACED_AS_WORDS[placed]}.
      </p>
      <div className="grid gap-x-8 gap-y-5 md:grid-cols-2">
        {pieces.map((piece) => {
          const apart = equalGapWords(piece, units);
          return (
            <section key={piece.member} aria-label={`Marks on ${piece.member}`}>
              <h3 className="font-semibold">
                {piece.member}, <span className="fig">{formatLength(piece.longMm, units).text}</span>:{" "}
                {measuredFromWords(piece)}
              </h3>
              {apart ? <p className="text-sm text-soft">{apart}</p> : null}
              <ol className="mt-1">
                {piece.marks.map((mark) => {
                  const { at, edges, what, face } = markWords(mark, units);
                  return (
                    <li
                      key={`${what}/${at}`}
                      className="grid grid-cols-[9rem_minmax(0,1fr)] items-baseline gap-x-3 border-t border-line py-1.5"
                    >
                      <span className="fig text-lg font-bold">{at}</span>
                      <span className="min-w-0">
                        <strong>{what}</strong>, {face}
                        {edges === "" ? null : <span className="fig block text-sm text-soft">{edges}</span>}
                      </span>
                    </li>
                  );
                })}
              </ol>
            </section>
          );
        })}
      </div>
    </div>
  );
}
