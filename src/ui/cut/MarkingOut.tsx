import { equalGapWords, markingOutOf, markWords, measuredFromWords } from "@/core/job";
import { formatLength } from "@/core/units";
import { useJob } from "../job/JobProvider";

/** What is marked on each piece before it is laid down, in running distances from one end. */
export function MarkingOut() {
  const { job, evaluation, units } = useJob("job", "evaluation", "units");
  const { structure, prediction } = evaluation;
  if (!structure) return null;
  const { pieces, isSetOff } = markingOutOf(job.plan, structure, prediction);
  if (pieces.length === 0) return <p className="text-soft">Nothing lands along a piece, and no hole is wanted.</p>;
  return (
    <div className="grid gap-5" data-testid="marking-out">
      <p className="max-w-prose text-sm text-soft">
        Hook the tape once and read every distance from that end. Places are{" "}
        {isSetOff ? "as the frame is set up, off nominal for what the weld will take" : "as drawn"}.
      </p>
      {pieces.map((piece) => {
        const apart = equalGapWords(piece, units);
        return (
          // biome-ignore lint/a11y/noNoninteractiveTabindex: scrolls sideways on a phone, so the keyboard must reach it
          <section key={piece.member} className="overflow-x-auto" aria-label={`Marks on ${piece.member}`} tabIndex={0}>
            <h3 className="font-semibold">
              {piece.member}, <span className="fig">{formatLength(piece.longMm, units).text}</span>:{" "}
              {measuredFromWords(piece)}
            </h3>
            {apart ? <p className="text-sm text-soft">{apart}</p> : null}
            <table className="w-full min-w-[26rem] text-left">
              <thead className="text-sm text-soft">
                <tr>
                  <th className="py-1 pr-3 font-normal">Middle</th>
                  <th className="py-1 pr-3 font-normal">Edges</th>
                  <th className="py-1 pr-3 font-normal">What</th>
                  <th className="py-1 font-normal">Where</th>
                </tr>
              </thead>
              <tbody>
                {piece.marks.map((mark) => {
                  const { at, edges, what, face } = markWords(mark, units);
                  return (
                    <tr key={`${what}/${at}`} className="border-t border-line">
                      <td className="fig py-1 pr-3 text-lg font-bold whitespace-nowrap">{at}</td>
                      <td className="fig py-1 pr-3 whitespace-nowrap">{edges}</td>
                      <td className="py-1 pr-3 whitespace-nowrap">{what}</td>
                      <td className="py-1 whitespace-nowrap text-soft">{face}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </section>
        );
      })}
    </div>
  );
}
