import { Plus, Trash2 } from "lucide-react";
import { freeAlso, MOST_ALSO, type Stock } from "@/core/cut";
import { length } from "@/core/units";
import { ReadIn } from "../files/ReadIn";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Fold } from "../parts/Fold";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { TextField } from "../parts/TextField";

type Also = NonNullable<Stock["also"]>;

/** Pieces of something else that are cut from the same bars. */
export function AlsoPieces({ stock, sections }: { stock: Stock; sections: readonly string[] }) {
  const { units, edit, field, forget } = usePlanField();
  const also = stock.also ?? [];
  const set = (next: Also) => edit((p) => ({ ...p, stock: { ...p.stock, also: next } }));
  const change = (id: string, what: Partial<Also[number]>) =>
    set(also.map((p) => (p.id === id ? { ...p, ...what } : p)));
  return (
    <Fold title="Pieces for something else" note={also.length > 0 ? `${also.length}` : "from the same bars"}>
      <div className="grid gap-4">
        <ul className="grid gap-4" aria-label="Pieces for something else">
          {also.map((p, i) => (
            <li key={p.id} className="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
              <LengthField
                label={`Length of ${p.id}`}
                units={units}
                value={p.length}
                {...field(`stock.also.${i}.length`, `stock.also.${p.id}.length`)}
                onChange={(v) => v && change(p.id, { length: v })}
              />
              <NumberField
                label={`How many of ${p.id}`}
                unit="pieces"
                min={1}
                max={500}
                value={p.quantity}
                {...field(`stock.also.${i}.quantity`, `stock.also.${p.id}.quantity`)}
                onChange={(v) => v !== null && change(p.id, { quantity: Math.round(v) })}
              />
              <Button
                look="quiet"
                className="mt-6.5"
                aria-label={`Take ${p.id} out`}
                onClick={() => {
                  forget(`stock.also.${p.id}.`);
                  set(also.filter((x) => x.id !== p.id));
                }}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
              <TextField label={`What ${p.id} is`} value={p.name} onChange={(name) => change(p.id, { name })} />
              <TextField label={`Ends of ${p.id}`} value={p.ends} onChange={(ends) => change(p.id, { ends })} />
              {sections.length > 0 ? (
                <SelectField
                  label={`${p.id} is of`}
                  value={p.section ?? sections[0] ?? ""}
                  options={sections.map((x) => [x, x] as const)}
                  onChange={(section) => change(p.id, { section })}
                />
              ) : null}
            </li>
          ))}
        </ul>
        <p className="max-w-prose text-sm text-soft">
          They take their place on the bars and stand on the cut list; nothing is added to them for the weld. A list of
          them (CSV: length, quantity, ends) can be dropped onto this page while this is open.
        </p>
        <ReadIn label="Read a list in" />
        <Button
          className="justify-self-start"
          disabled={also.length >= MOST_ALSO}
          onClick={() =>
            set([
              ...also,
              {
                id: freeAlso(also),
                name: "",
                length: units === "mm" ? length("500") : length("20", "in"),
                quantity: 1,
                ends: "",
              },
            ])
          }
        >
          <Plus size={18} aria-hidden="true" /> A piece for something else
        </Button>
      </div>
    </Fold>
  );
}
